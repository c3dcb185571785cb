<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Shot\ShotChoice;

/**
 * What a shot cost: what was lost by choosing it, and what by how it came out, luck included. In chances to run out, or in straight pool in
 * balls run, expected.
 */
final readonly class ShotCost
{
    /**
     * @param float           $best   of the best that was found from there
     * @param float           $chosen with the stroke that was meant, played with the player's errors
     * @param float           $after  of what came of it: 0 where the turn passed, 1 where the rack was run out
     * @param float           $error  standard error of the difference between the first two
     * @param ShotChoice|null $passed the best first shot, where it is another than the one that was chosen
     */
    public function __construct(
        public float $best,
        public float $chosen,
        public float $after,
        public float $error,
        public ?ShotChoice $passed = null,
    ) {
    }

    /** What the choice cost; nought where the best cannot be told from it. */
    public function decision(): float
    {
        return max(0.0, $this->best - $this->chosen);
    }

    /** Whether the cost of the choice is more than the replays' chance, at 90 percent. */
    public function isTold(): bool
    {
        return $this->decision() > 1.645 * $this->error;
    }

    /** What the execution cost, luck included; below nought where more came of it than could be expected. */
    public function execution(): float
    {
        return $this->chosen - $this->after;
    }

    /** All that was lost, by choice and execution together. */
    public function lost(): float
    {
        return $this->decision() + $this->execution();
    }
}
