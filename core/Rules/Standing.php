<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

/** What came before a shot and still counts: the fouls that both players have made in a row, and what the last shot allows now. */
final readonly class Standing
{
    /** So many fouls in a row lose the rack in nine- and ten-ball, or cost fifteen in straight pool. */
    public const FOULS_IN_A_ROW = 3;

    /**
     * @param int  $fouls      that the shooter has made in a row before this shot: 0 to 2; eight-ball counts none
     * @param int  $otherFouls the same of the other player
     * @param bool $mayPush    the shot after the break of nine- or ten-ball: a push-out is allowed
     * @param bool $mayPass    the other player pushed out, or in ten-ball made a ball that was not called: the shot may be given back
     */
    public function __construct(
        public int $fouls = 0,
        public int $otherFouls = 0,
        public bool $mayPush = false,
        public bool $mayPass = false,
    ) {
    }

    /** The same as the other player would come to it, without what the last shot allows. */
    public function turned(): self
    {
        return new self($this->otherFouls, $this->fouls);
    }

    /** After a shot of the shooter: his fouls are one more, or none. */
    public function after(bool $isFoul, bool $mayPass = false): self
    {
        return new self($isFoul ? ($this->fouls + 1) % self::FOULS_IN_A_ROW : 0, $this->otherFouls, false, $mayPass);
    }
}
