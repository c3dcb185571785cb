<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

use ZigLane\Core\Position\Layout;

/** One try of a drill as it is about to be played. */
final readonly class Attempt
{
    /**
     * @param Layout     $layout as set up; without the cue ball where that is in hand
     * @param int        $number from 1
     * @param int        $step   of a cue ball that moves away, from 0
     * @param float|null $last   where along the table the cue ball stopped after the try before, diamonds; null before any
     */
    public function __construct(public Layout $layout, public int $number = 1, public int $step = 0, public ?float $last = null)
    {
    }
}
