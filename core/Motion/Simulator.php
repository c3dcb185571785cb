<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;

/** Plays one shot from a layout and says what came of it. Deterministic: the same input gives the same outcome. */
interface Simulator
{
    /**
     * @throws IllegalLayout   If there is no cue ball or the balls cannot lie so
     * @throws SimulationLimit If the bound on events is met
     */
    public function play(Layout $layout, Strike $strike): Outcome;
}
