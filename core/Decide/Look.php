<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

/** What a player finds who comes to a position. */
final readonly class Look
{
    /**
     * @param float $win  value for him: chance to win the rack, or in straight pool balls, his less the other's
     * @param float $pot  chance of his easiest pot, 0 if nothing goes straight
     * @param bool  $sees any of a ball on, or has the ball in hand
     */
    public function __construct(public float $win, public float $pot, public bool $sees, public bool $isInHand)
    {
    }
}
