<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

/** What a shot is judged by beside the layout: how the shooter has come to it. */
final readonly class Turn
{
    /**
     * @param Group|null $group       the shooter's in eight-ball; open or null on an open table
     * @param bool       $fromKitchen the cue ball was in hand behind the head string
     * @param int        $foulsInARow fouls that the shooter has made in a row before this shot
     */
    public function __construct(public ?Group $group = null, public bool $fromKitchen = false, public int $foulsInARow = 0)
    {
    }

    /** The first shot from a rack. */
    public static function first(Rack $rack): self
    {
        return new self(
            $rack->game->rules()->group($rack->group),
            BallInHand::Kitchen === $rack->ballInHand,
            $rack->standing->fouls,
        );
    }

    /** Whether a foul now is the third in a row. */
    public function isThird(): bool
    {
        return $this->foulsInARow + 1 >= Standing::FOULS_IN_A_ROW;
    }

    public function withGroup(?Group $group): self
    {
        return new self($group, $this->fromKitchen, $this->foulsInARow);
    }

    /** The shooter's next shot after a legal one that lets him go on. */
    public function next(?Group $group): self
    {
        return new self($group);
    }
}
