<?php

declare(strict_types=1);

namespace ZigLane\Core\Log;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Side;

/** What came of a logged shot, as far as it was noted. */
final readonly class ShotResult
{
    /** Standard deviation of a spot that was tapped, metres in each direction. */
    public const MEASURED = 0.08;

    /**
     * @param bool|null   $isMade   the called ball dropped in the called pocket; null: not noted, or nothing was called
     * @param Side|null   $missed   of the pocket, as the ball was going; null if it was made or is not known
     * @param bool        $scratch  the cue ball dropped
     * @param Pocket|null $in       where; null if it did not, or is not known
     * @param bool|null   $position the cue ball reached the zone of the next ball
     * @param Layout      $after    the balls that were noted, where they were: they may overlap by the error of measurement
     * @param float       $measured standard deviation of those spots, metres in each direction
     * @param list<Ball>  $fell     what else dropped, or fell on the break
     */
    public function __construct(
        public ?bool $isMade,
        public ?Side $missed,
        public bool $scratch,
        public ?Pocket $in,
        public bool $foul,
        public bool $miscue,
        public ?bool $position,
        public Layout $after,
        public float $measured = self::MEASURED,
        public array $fell = [],
    ) {
    }
}
