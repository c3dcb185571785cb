<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Position\Ball;
use ZigLane\Core\Table\Rail;

/** A ball made another way than straight: over other balls or off cushions, with its odds from simulated tries. */
final readonly class IndirectShot
{
    public const COMBINATION = 'combination';
    public const CAROM = 'carom';
    public const BANK = 'bank';
    public const KICK = 'kick';

    /**
     * @param string     $kind  one of the constants; a shot that is several of them bears the name of the first of kick, bank, carom
     * @param list<Ball> $over  the balls between the cue ball and the one that is made, in the order of their contacts
     * @param list<Rail> $rails kick: those that the cue ball meets before any ball; bank: those that the ball meets on its way
     * @param float      $width of the window of directions, radians
     */
    public function __construct(
        public SolvedShot $shot,
        public string $kind,
        public array $over,
        public array $rails,
        public float $width,
        public float $odds,
        public int $tries,
    ) {
    }

    /** "bank off the left rail", "combination over the 3". */
    public function spoken(): string
    {
        $rails = implode(' and ', array_map(static fn (Rail $rail): string => $rail->value, $this->rails));
        $over = implode(' and ', array_map(static fn (Ball $ball): string => $ball->spoken(), $this->over));

        return match ($this->kind) {
            self::KICK => \sprintf('kick off the %s rail', $rails).('' === $over ? '' : ' over '.$over),
            self::BANK => \sprintf('bank off the %s rail', $rails).('' === $over ? '' : ' over '.$over),
            self::CAROM => \sprintf('carom off %s', $over),
            default => \sprintf('combination over %s', $over),
        };
    }
}
