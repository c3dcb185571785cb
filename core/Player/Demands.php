<?php

declare(strict_types=1);

namespace ZigLane\Core\Player;

/** What a shot asks of a player beside its speed and elevation. */
final readonly class Demands
{
    /**
     * @param bool  $hasAwkwardBridge the hand lies on the rail or over a ball
     * @param float $cut              degrees
     * @param float $judgement        what the player misjudges of cushions and lines of centres, as a deviation of the cue's direction,
     *                                degrees
     */
    public function __construct(public bool $hasAwkwardBridge = false, public float $cut = 0.0, public float $judgement = 0.0)
    {
    }
}
