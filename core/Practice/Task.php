<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

/** What is to be done in each try of a drill. */
enum Task: string
{
    /** A ball is potted, straight or over cushions. */
    case Pot = 'pot';
    /** A ball is met, and stays on the table. */
    case Hit = 'hit';
    /** The cue ball alone is sent. */
    case Lag = 'lag';
    /** All balls are made one after the other; a try is worth as many points as balls. */
    case Run = 'run';
    /** A rack is broken; a ball that drops is a point. */
    case Break = 'break';

    /** Whether a try is told by how many balls were made, and not by whether it was done. */
    public function isCounted(): bool
    {
        return self::Run === $this || self::Break === $this;
    }
}
