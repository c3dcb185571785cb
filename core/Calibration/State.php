<?php

declare(strict_types=1);

namespace ZigLane\Core\Calibration;

/**
 * Constants of a table, each on its scale, and the speeds of the tests' shots.
 *
 * @internal
 */
final readonly class State
{
    /**
     * @param list<Parameter> $parameters
     * @param list<float>     $scaled     of each
     * @param list<float>     $speeds     logarithms of m/s
     * @param float           $cost       sum of squares, with the prior's
     */
    public function __construct(public array $parameters, public array $scaled, public array $speeds, public float $cost)
    {
    }

    /** @return array<string, float> by Parameter */
    public function values(): array
    {
        $values = [];
        foreach ($this->parameters as $i => $parameter) {
            $values[$parameter->value] = $parameter->value($this->scaled[$i]);
        }

        return $values;
    }

    public function moved(int $place, float $by): self
    {
        $scaled = $this->scaled;
        $scaled[$place] += $by;

        return new self($this->parameters, array_values($scaled), $this->speeds, \INF);
    }
}
