<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Table\Spot;

/** The cue ball meets an object ball: when (s), where the cue ball's centre is, where the object ball goes. */
final readonly class Meeting
{
    public function __construct(
        public float $time,
        public Spot $cue,
        public Trajectory $object,
    ) {
    }
}
