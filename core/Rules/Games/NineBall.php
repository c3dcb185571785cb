<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules\Games;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Rules\RuleOptions;

/** Nine-ball: whatever drops on a legal shot counts, unless the house has it called; the 9 wins at any time, on the break too. */
final readonly class NineBall extends Rotation
{
    public function __construct()
    {
        parent::__construct(Ball::Nine, [1, 2, 3, 2, 1], [3.6, 8.5], ['callsNine']);
    }

    public function anyCounts(RuleOptions $options): bool
    {
        return !$options->callsNine;
    }

    protected function winsEarly(RuleOptions $options): bool
    {
        return true;
    }

    protected function winsOnBreak(): bool
    {
        return true;
    }
}
