<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

/** What a try came to. */
final readonly class TryScore
{
    /**
     * @param bool $isDone  what was to be done was done
     * @param bool $isWhole and every target was met
     */
    public function __construct(public float $points, public bool $isDone, public bool $isWhole)
    {
    }
}
