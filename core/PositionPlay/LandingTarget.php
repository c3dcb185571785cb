<?php

declare(strict_types=1);

namespace ZigLane\Core\PositionPlay;

use ZigLane\Core\Table\Spot;

/** Where the cue ball is to stop. */
interface LandingTarget
{
    /** How far a stop misses it, metres: what is within LandingSearch::CLOSE counts as there, and less is better. */
    public function off(Spot $stop): float;

    /** Whether a stop counts as there when tries are counted. */
    public function holds(Spot $stop): bool;
}
