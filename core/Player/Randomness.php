<?php

declare(strict_types=1);

namespace ZigLane\Core\Player;

use Random\Engine\Xoshiro256StarStar;

/** Seeded chance: the same seed gives the same numbers on every machine. */
final class Randomness
{
    private readonly Xoshiro256StarStar $engine;
    private ?float $spare = null;

    public function __construct(int $seed)
    {
        $this->engine = new Xoshiro256StarStar($seed);
    }

    /** A number from 0 up to, but not including, 1: all 53 bits that a float can hold. */
    public function share(): float
    {
        $bits = unpack('P', $this->engine->generate());
        \assert(false !== $bits && \is_int($bits[1]));

        return ($bits[1] >> 11 & 0x1FFFFFFFFFFFFF) / 0x20000000000000;
    }

    /** A number of the standard normal distribution (Box and Muller, Annals of Mathematical Statistics 29, 1958). */
    public function normal(): float
    {
        if (null !== $this->spare) {
            [$value, $this->spare] = [$this->spare, null];

            return $value;
        }
        $size = \sqrt(-2 * log(1 - $this->share()));
        $angle = 2 * \M_PI * $this->share();
        $this->spare = $size * sin($angle);

        return $size * cos($angle);
    }

    /**
     * The same things in another order, every order as likely (Fisher and Yates).
     *
     * @template T
     *
     * @param list<T> $things
     *
     * @return list<T>
     */
    public function shuffled(array $things): array
    {
        for ($i = \count($things) - 1; $i > 0; --$i) {
            $j = (int) floor($this->share() * ($i + 1));
            [$things[$i], $things[$j]] = [$things[$j], $things[$i]];
        }

        return array_values($things);
    }
}
