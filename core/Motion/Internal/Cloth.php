<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

use ZigLane\Core\Motion\Tolerances;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\TableProfile;

/**
 * What a ball's motion on the cloth depends on: its radius (m), the decelerations of sliding and rolling (m/s^2), the decay of
 * spin about the vertical (rad/s^2), and below what slip (m/s), speed (m/s) and spin (rad/s) it has ended.
 *
 * @internal
 */
final readonly class Cloth
{
    private function __construct(
        public float $radius,
        public float $slideRate,
        public float $rollRate,
        public float $spinDecay,
        public float $slip,
        public float $still,
        public float $spin,
    ) {
    }

    public static function of(TableProfile $table, BallSet $balls, Tolerances $tolerances): self
    {
        return new self(
            $balls->radius,
            $table->slide * $table->gravity,
            $table->roll * $table->gravity,
            $table->spinDecay,
            $tolerances->slip,
            $tolerances->still,
            $tolerances->spin,
        );
    }
}
