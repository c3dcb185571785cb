<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Plan\Option;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Shot\SolvedShot;

/**
 * A shot of a run as it is meant, the policy that chose it, and by what it is judged.
 *
 * @internal
 */
final readonly class PlannedShot
{
    public function __construct(public SolvedShot $shot, public Policy $policy, public Turn $turn)
    {
    }

    public function option(): Option
    {
        return new Option($this->shot->choice, $this->shot->aim, $this->shot->strike, 1.0);
    }
}
