<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;

/** What a ball has to do beside the task, and what that is worth. */
final readonly class Target
{
    /**
     * @param Ball|null   $ball   of an area the ball that stops there; of a zone the next ball; of a hidden cue ball the one that must not
     *                            be seen, null for all
     * @param Pocket|null $pocket of the next ball; null for any
     * @param float       $odds   of the next ball, 0 to 1
     * @param int         $least  balls that are opened
     */
    public function __construct(
        public TargetKind $kind,
        public float $points,
        public ?Ball $ball = null,
        public ?Area $area = null,
        public ?Pocket $pocket = null,
        public float $odds = 0.6,
        public int $least = 1,
    ) {
    }

    public function most(): float
    {
        return $this->points * ($this->area?->most() ?? 1.0);
    }
}
