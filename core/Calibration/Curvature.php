<?php

declare(strict_types=1);

namespace ZigLane\Core\Calibration;

use ZigLane\Core\Math\Matrix;

/**
 * The sum of squares about a state: its gradient and its second derivatives (Gauss and Newton's), with each speed apart, since it has a
 * part in one test only.
 *
 * @internal
 */
final class Curvature
{
    /** The most a constant moves in a step, in its spreads, and a speed, of its logarithm. */
    private const MOST = 1.0;
    private const MOST_SPEED = 0.3;
    /** Constants have a part in what the tests cannot tell from this share of it on. */
    private const PART = 0.45;

    /** @var array<int, array<int, float>> */
    private array $matrix;
    /** @var array<int, float> */
    private array $gradient;
    /** @var list<array{list<float>, float, float}|null> of each test's speed: with the constants, by itself, its gradient */
    private array $speeds = [];

    /**
     * @param list<Parameter> $parameters
     * @param list<float>     $priors     on their scales
     * @param list<float>     $scaled     where they are
     */
    public function __construct(private readonly array $parameters, array $priors, array $scaled)
    {
        $count = \count($parameters);
        $this->matrix = $this->gradient = [];
        for ($i = 0; $i < $count; ++$i) {
            $row = array_fill(0, $count, 0.0);
            $row[$i] = $parameters[$i]->spread() ** -2;
            $this->matrix[] = array_values($row);
            $this->gradient[] = ($scaled[$i] - $priors[$i]) * $row[$i];
        }
    }

    /**
     * A test.
     *
     * @param list<float>       $residuals
     * @param list<list<float>> $rates     of the residuals, by constant
     * @param list<float>|null  $bySpeed   by the logarithm of its speed; null where that is known
     * @param float             $pull      gradient of the speed's prior, and its second derivative
     */
    public function add(array $residuals, array $rates, ?array $bySpeed, float $pull, float $stiffness): void
    {
        $with = [];
        foreach ($rates as $i => $of) {
            $this->gradient[$i] += self::dot($of, $residuals);
            for ($j = 0; $j <= $i; ++$j) {
                $this->matrix[$i][$j] += self::dot($of, $rates[$j]);
                $this->matrix[$j][$i] = $this->matrix[$i][$j];
            }
            $with[] = null === $bySpeed ? 0.0 : self::dot($of, $bySpeed);
        }
        $this->speeds[] = null === $bySpeed
            ? null
            : [$with, self::dot($bySpeed, $bySpeed) + $stiffness, self::dot($bySpeed, $residuals) + $pull];
    }

    /**
     * Second derivatives of the constants with the speeds eliminated.
     *
     * @return list<list<float>>
     */
    public function reduced(float $damping): array
    {
        $matrix = $this->matrix;
        foreach (array_keys($matrix) as $i) {
            $matrix[$i][$i] *= 1 + $damping;
        }
        foreach ($this->speeds as $speed) {
            if (null === $speed) {
                continue;
            }
            [$with, $itself] = $speed;
            foreach ($with as $i => $one) {
                foreach ($with as $j => $other) {
                    $matrix[$i][$j] -= $one * $other / ($itself * (1 + $damping));
                }
            }
        }

        return array_map(array_values(...), array_values($matrix));
    }

    public function step(State $state, float $damping): State
    {
        $right = array_map(static fn (float $slope): float => -$slope, $this->gradient);
        foreach ($this->speeds as $speed) {
            if (null !== $speed) {
                foreach ($speed[0] as $i => $one) {
                    $right[$i] += $one * $speed[2] / ($speed[1] * (1 + $damping));
                }
            }
        }
        $moves = Matrix::solved($this->reduced($damping), array_values($right));
        $scaled = $speeds = [];
        foreach ($state->scaled as $i => $value) {
            $parameter = $this->parameters[$i];
            $most = self::MOST * $parameter->spread();
            $moves[$i] = max(-$most, min($most, $moves[$i]));
            $scaled[] = $parameter->scaled($parameter->value($value + $moves[$i]));
        }
        foreach ($state->speeds as $t => $log) {
            $speed = $this->speeds[$t];
            $move = null === $speed ? 0.0 : (-$speed[2] - self::dot($speed[0], $moves)) / ($speed[1] * (1 + $damping));
            $speeds[] = $log + max(-self::MOST_SPEED, min(self::MOST_SPEED, $move));
        }

        return new State($state->parameters, $scaled, $speeds, \INF);
    }

    /**
     * The lower triangle that makes of independent normal numbers what the tests leave of the constants.
     *
     * @return list<list<float>>
     */
    public function deviations(): array
    {
        return Matrix::root(
            Matrix::inverse($this->reduced(0.0)),
            array_map(static fn (Parameter $one): float => 1e-4 * $one->spread(), $this->parameters),
        );
    }

    /**
     * @return array{list<float>, float}|null how a test's speed follows the constants, and its deviation beside them; null where it is
     *                                        known
     */
    public function follows(int $test): ?array
    {
        $speed = $this->speeds[$test];

        return null === $speed
            ? null
            : [array_map(static fn (float $one): float => -$one / $speed[1], $speed[0]), 1 / \sqrt(max(1e-9, $speed[1]))];
    }

    /**
     * Groups of constants that the tests cannot tell apart: of a direction among them (each in its spreads) in which the tests say less
     * than was known before, those that have a large part in it. From the singular values of the tests alone.
     *
     * @param list<Parameter> $parameters
     *
     * @return list<array{float, list<Parameter>}> the singular value (1: as much as was known before), and the constants
     */
    public function alike(array $parameters): array
    {
        $matrix = $this->reduced(0.0);
        $scaled = [];
        foreach ($matrix as $i => $row) {
            $line = [];
            foreach ($row as $j => $value) {
                $spread = $parameters[$i]->spread() * $parameters[$j]->spread();
                $line[] = $spread * $value - ($i === $j ? 1.0 : 0.0);
            }
            $scaled[] = $line;
        }
        $groups = [];
        [$values, $vectors] = Matrix::eigen($scaled);
        foreach ($values as $k => $value) {
            $members = array_keys(array_filter($vectors[$k], static fn (float $part): bool => abs($part) > self::PART));
            $groups[] = [\sqrt(max(0.0, $value)), array_map(static fn (int $i): Parameter => $parameters[$i], $members)];
        }
        usort($groups, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return $groups;
    }

    /**
     * @param array<int, float> $a
     * @param array<int, float> $b
     */
    private static function dot(array $a, array $b): float
    {
        $sum = 0.0;
        foreach ($a as $i => $value) {
            $sum += $value * $b[$i];
        }

        return $sum;
    }
}
