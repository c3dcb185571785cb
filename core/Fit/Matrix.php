<?php

declare(strict_types=1);

namespace ZigLane\Core\Fit;

/**
 * Small square matrices, as lists of rows.
 *
 * @internal
 */
final class Matrix
{
    /**
     * Gauss's elimination with pivots.
     *
     * @param list<list<float>> $matrix
     * @param list<float>       $right
     *
     * @return list<float>
     */
    public static function solved(array $matrix, array $right): array
    {
        $n = \count($right);
        for ($i = 0; $i < $n; ++$i) {
            $pivot = $i;
            for ($j = $i + 1; $j < $n; ++$j) {
                $pivot = abs($matrix[$j][$i]) > abs($matrix[$pivot][$i]) ? $j : $pivot;
            }
            [$matrix[$i], $matrix[$pivot]] = [$matrix[$pivot], $matrix[$i]];
            [$right[$i], $right[$pivot]] = [$right[$pivot], $right[$i]];
            for ($j = $i + 1; $j < $n; ++$j) {
                $factor = 0.0 === $matrix[$i][$i] ? 0.0 : $matrix[$j][$i] / $matrix[$i][$i];
                for ($k = $i; $k < $n; ++$k) {
                    $matrix[$j][$k] -= $factor * $matrix[$i][$k];
                }
                $right[$j] -= $factor * $right[$i];
            }
        }
        for ($i = $n - 1; $i >= 0; --$i) {
            for ($k = $i + 1; $k < $n; ++$k) {
                $right[$i] -= $matrix[$i][$k] * $right[$k];
            }
            $right[$i] = 0.0 === $matrix[$i][$i] ? 0.0 : $right[$i] / $matrix[$i][$i];
        }

        return array_values($right);
    }

    /**
     * @param list<list<float>> $matrix
     *
     * @return list<list<float>>
     */
    public static function inverse(array $matrix): array
    {
        $n = \count($matrix);
        $columns = [];
        for ($i = 0; $i < $n; ++$i) {
            $unit = array_fill(0, $n, 0.0);
            $unit[$i] = 1.0;
            $columns[] = self::solved($matrix, array_values($unit));
        }

        // The matrix is symmetric, and so is its inverse.
        return $columns;
    }

    /**
     * The lower triangle whose square it is (Cholesky), row by row up to the diagonal.
     *
     * @param list<list<float>> $matrix symmetric; only its lower triangle is read
     * @param list<float>       $least  what each element of the diagonal is at the least
     *
     * @return list<list<float>>
     */
    public static function root(array $matrix, array $least): array
    {
        $root = [];
        foreach ($matrix as $i => $row) {
            $line = [];
            for ($j = 0; $j <= $i; ++$j) {
                $sum = $row[$j];
                for ($k = 0; $k < $j; ++$k) {
                    $sum -= $line[$k] * ($i === $j ? $line[$k] : $root[$j][$k]);
                }
                $line[] = $i === $j ? \sqrt(max($least[$i] ** 2, $sum)) : $sum / $root[$j][$j];
            }
            $root[] = $line;
        }

        return $root;
    }
}
