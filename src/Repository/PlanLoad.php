<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

/** How much planning an account has asked for. */
final readonly class PlanLoad
{
    public function __construct(public int $underWay, public int $inAnHour)
    {
    }
}
