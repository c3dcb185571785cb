<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Player\Deviations;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Table\Spot;

/** One thing that can be done in a situation: a shot as it is meant, with the errors with which its player makes it; or nothing. */
final readonly class Way
{
    /**
     * @param ShotChoice|null $choice the call; of a safety the ball that is met first, aimed by hand; null where no shot is played
     * @param Spot|null       $place  of the cue ball in hand
     */
    public function __construct(
        public WayKind $kind,
        public ?ShotChoice $choice = null,
        public ?Strike $strike = null,
        public ?Deviations $errors = null,
        public ?Spot $place = null,
    ) {
    }
}
