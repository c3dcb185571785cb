<?php

declare(strict_types=1);

namespace ZigLane\Tests;

/**
 * A real polynomial of low degree, for roots that must be isolated with certainty rather than fast.
 */
final readonly class Polynomial
{
    /** @param non-empty-list<float> $coefficients from the constant upwards */
    public function __construct(private array $coefficients)
    {
    }

    /** |d + v t + a t^2 / 2|^2 - reach^2 as a quartic in t. */
    public static function quadraticDistance(float $dx, float $dy, float $vx, float $vy, float $ax, float $ay, float $reach): self
    {
        return new self([
            $dx * $dx + $dy * $dy - $reach * $reach,
            2 * ($dx * $vx + $dy * $vy),
            $vx * $vx + $vy * $vy + $dx * $ax + $dy * $ay,
            $vx * $ax + $vy * $ay,
            0.25 * ($ax * $ax + $ay * $ay),
        ]);
    }

    public function at(float $t): float
    {
        $value = 0.0;
        for ($i = \count($this->coefficients) - 1; $i >= 0; --$i) {
            $value = $value * $t + $this->coefficients[$i];
        }

        return $value;
    }

    /** The least root in (0, most], or null. A root of even order counts when rounding lets it be seen. */
    public function firstRoot(float $most): ?float
    {
        foreach ($this->roots($most) as $root) {
            if ($root > 0.0) {
                return $root;
            }
        }

        return null;
    }

    /**
     * All roots in [0, most] in rising order: between neighbouring roots of the derivative the polynomial is monotone, and a
     * change of sign is bisected to the last bit.
     *
     * @return list<float>
     */
    public function roots(float $most): array
    {
        $degree = \count($this->coefficients) - 1;
        if ($degree < 1 || !($most > 0.0)) {
            return [];
        }
        $slope = [];
        for ($i = 1; $i <= $degree; ++$i) {
            $slope[] = $i * $this->coefficients[$i];
        }
        $edges = [0.0, ...(new self($slope))->roots($most), $most];
        $roots = [];
        for ($i = 1, $n = \count($edges); $i < $n; ++$i) {
            $low = $edges[$i - 1];
            $high = $edges[$i];
            $atLow = $this->at($low);
            $atHigh = $this->at($high);
            if (0.0 === $atHigh) {
                $roots[] = $high;
                continue;
            }
            if ($atLow * $atHigh >= 0.0) {
                continue;
            }
            for ($round = 0; $round < 200; ++$round) {
                $middle = 0.5 * ($low + $high);
                if ($middle === $low || $middle === $high) {
                    break;
                }
                $value = $this->at($middle);
                if (($value < 0.0) === ($atLow < 0.0)) {
                    $low = $middle;
                } else {
                    $high = $middle;
                }
            }
            $roots[] = $high;
        }

        return array_values(array_unique($roots));
    }
}
