<?php

declare(strict_types=1);

namespace ZigLane\Core\Teaching;

/** What is asked of a position. */
enum Question: string
{
    case FirstBall = 'firstBall';
    case CueBall = 'cueBall';
    /** Order, pockets, spot: the whole. */
    case Plan = 'plan';

    /** Whether a spot for the cue ball belongs to the answer. */
    public function asksSpot(): bool
    {
        return self::FirstBall !== $this;
    }
}
