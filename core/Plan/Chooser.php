<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Turn;

/** Somebody who says what to shoot next. */
interface Chooser
{
    /** @return Option|null the shot that is played from here; null where there is none worth playing */
    public function next(Layout $layout, int $seed, ?Turn $turn = null): ?Option;
}
