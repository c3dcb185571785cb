<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Motion\Strike;

/** A called shot with its aim and the strike that it takes, before it is played. */
final readonly class AimedShot
{
    public function __construct(public ShotChoice $choice, public Aim $aim, public Strike $strike)
    {
    }
}
