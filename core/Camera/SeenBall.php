<?php

declare(strict_types=1);

namespace ZigLane\Core\Camera;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Table\Spot;

/** A ball that a picture shows: which it is likely to be, where, and how sure that is, 0 to 1. */
final readonly class SeenBall
{
    public function __construct(public Ball $ball, public Spot $spot, public float $confidence)
    {
    }
}
