<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Table\Spot;

/** A way to begin a run: with ball in hand a place of the cue ball, on an open table a group, and the first shot. */
final readonly class Candidate
{
    public function __construct(public Layout $layout, public Option $option, public ?Spot $place = null, public ?Group $group = null)
    {
    }
}
