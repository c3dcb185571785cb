<?php

declare(strict_types=1);

namespace ZigLane\Core\Fit;

use ZigLane\Core\Math\Matrix;
use ZigLane\Core\Player\Randomness;

/**
 * A normal distribution in four dimensions from which the errors of a stroke are drawn. Densities leave out the constant of the normal
 * distribution, here and wherever they are compared.
 *
 * @internal
 *
 * @phpstan-type Four array{float, float, float, float}
 */
final readonly class Proposal
{
    /** Draws that agree with what was noted, from which on they say where more of them are. */
    private const ENOUGH = 4;
    /** How much wider it is than the draws that it is made of, and the least width as a share of the first proposal's. */
    private const WIDER = 1.3;
    private const LEAST = 0.12;

    /**
     * @param Four              $middle
     * @param list<list<float>> $root   the lower triangle whose square is the covariance (Matrix::root)
     */
    private function __construct(private array $middle, private array $root)
    {
    }

    /**
     * @param Four $middle
     * @param Four $spread standard deviations
     */
    public static function plain(array $middle, array $spread): self
    {
        return new self($middle, [
            [$spread[0]],
            [0.0, $spread[1]],
            [0.0, 0.0, $spread[2]],
            [0.0, 0.0, 0.0, $spread[3]],
        ]);
    }

    /**
     * About the draws that agree with what was noted; null where there are too few.
     *
     * @param list<array{Four, float}> $draws  with their likelihood
     * @param Four                     $spread of the proposal that they were drawn from
     */
    public static function about(array $draws, array $spread): ?self
    {
        $total = array_sum(array_column($draws, 1));
        if (\count($draws) < self::ENOUGH || $total <= 0.0) {
            return null;
        }
        $middle = [0.0, 0.0, 0.0, 0.0];
        foreach ($draws as [$error, $weight]) {
            for ($k = 0; $k < 4; ++$k) {
                $middle[$k] += $weight * $error[$k] / $total;
            }
        }
        $covariance = [];
        for ($i = 0; $i < 4; ++$i) {
            $row = [];
            for ($j = 0; $j <= $i; ++$j) {
                $sum = 0.0;
                foreach ($draws as [$error, $weight]) {
                    $sum += $weight * ($error[$i] - $middle[$i]) * ($error[$j] - $middle[$j]) / $total;
                }
                $row[] = self::WIDER ** 2 * $sum + ($i === $j ? (self::LEAST * $spread[$i]) ** 2 : 0.0);
            }
            $covariance[] = $row;
        }

        return new self($middle, Matrix::root($covariance, array_map(static fn (float $one): float => 0.5 * self::LEAST * $one, $spread)));
    }

    /** @return Four errors: degrees, share, mm, mm */
    public function draw(Randomness $random): array
    {
        $z = [$random->normal(), $random->normal(), $random->normal(), $random->normal()];
        $error = $this->middle;
        for ($i = 0; $i < 4; ++$i) {
            for ($j = 0; $j <= $i; ++$j) {
                $error[$i] += $this->root[$i][$j] * $z[$j];
            }
        }

        return $error;
    }

    /** @param Four $error */
    public function density(array $error): float
    {
        $y = [0.0, 0.0, 0.0, 0.0];
        $square = 0.0;
        $size = 1.0;
        for ($i = 0; $i < 4; ++$i) {
            $rest = $error[$i] - $this->middle[$i];
            for ($j = 0; $j < $i; ++$j) {
                $rest -= $this->root[$i][$j] * $y[$j];
            }
            $y[$i] = $rest / $this->root[$i][$i];
            $square += $y[$i] ** 2;
            $size *= $this->root[$i][$i];
        }

        return exp(-0.5 * $square) / $size;
    }
}
