<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Table\Spot;

/** What a person with a tape and a stopwatch sees of a shot. */
final readonly class Measured
{
    /**
     * @param array<int, Spot>                    $ends     where balls lie or dropped, keyed by their numbers
     * @param array<int, Pocket>                  $pocketed
     * @param array<int, list<array{Rail, Spot}>> $cushions the cushions that each ball met, in order; contacts of a ball with one
     *                                                      cushion that
     *                                                      lie within ONCE of each other count once
     * @param float                               $seconds  until nothing moves along the cloth any more; a ball that spins in place stands
     */
    public function __construct(public array $ends, public array $pocketed, public array $cushions, public float $seconds)
    {
    }

    /** Metres. */
    public const ONCE = 0.02;

    /** @return list<array{Rail, Spot}> */
    public function cushionsOf(Ball $ball): array
    {
        return $this->cushions[$ball->value] ?? [];
    }
}
