<?php

declare(strict_types=1);

namespace ZigLane\Tests;

use Random\Engine\Mt19937;
use Random\Randomizer;

/** Seeded chance, so that a failure can be seen again. */
final readonly class Chance
{
    private Randomizer $randomizer;

    public function __construct(int $seed)
    {
        $this->randomizer = new Randomizer(new Mt19937($seed));
    }

    public function float(float $least, float $most): float
    {
        return $least + ($most - $least) * $this->randomizer->getInt(0, 2 ** 53 - 1) / 2 ** 53;
    }

    public function int(int $least, int $most): int
    {
        return $this->randomizer->getInt($least, $most);
    }

    /** A number of the normal distribution of mean 0 and deviation 1 (Box and Muller). */
    public function normal(): float
    {
        return \sqrt(-2 * log($this->float(1e-12, 1.0))) * cos(2 * \M_PI * $this->float(0.0, 1.0));
    }
}
