<?php

declare(strict_types=1);

namespace ZigLane\Core\Math;

/** Small square matrices, as lists of rows. */
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

    /**
     * Eigenvalues and eigenvectors of a symmetric matrix, by Jacobi's rotations.
     *
     * @param list<list<float>> $matrix
     *
     * @return array{list<float>, list<list<float>>} values, and of each its vector of length 1
     */
    public static function eigen(array $matrix): array
    {
        $n = \count($matrix);
        $vectors = [];
        for ($i = 0; $i < $n; ++$i) {
            $vectors[] = array_map(static fn (int $j): float => $i === $j ? 1.0 : 0.0, range(0, $n - 1));
        }
        foreach (range(1, 60) as $ignored) {
            $off = 0.0;
            for ($i = 0; $i < $n; ++$i) {
                for ($j = 0; $j < $i; ++$j) {
                    $off += $matrix[$i][$j] ** 2;
                }
            }
            if ($off < 1e-24) {
                break;
            }
            for ($p = 0; $p < $n; ++$p) {
                for ($q = $p + 1; $q < $n; ++$q) {
                    if (abs($matrix[$p][$q]) < 1e-300) {
                        continue;
                    }
                    $theta = 0.5 * atan2(2 * $matrix[$p][$q], $matrix[$q][$q] - $matrix[$p][$p]);
                    [$c, $s] = [cos($theta), sin($theta)];
                    for ($k = 0; $k < $n; ++$k) {
                        [$a, $b] = [$matrix[$k][$p], $matrix[$k][$q]];
                        $matrix[$k][$p] = $c * $a - $s * $b;
                        $matrix[$k][$q] = $s * $a + $c * $b;
                    }
                    for ($k = 0; $k < $n; ++$k) {
                        [$a, $b] = [$matrix[$p][$k], $matrix[$q][$k]];
                        $matrix[$p][$k] = $c * $a - $s * $b;
                        $matrix[$q][$k] = $s * $a + $c * $b;
                        [$a, $b] = [$vectors[$p][$k], $vectors[$q][$k]];
                        $vectors[$p][$k] = $c * $a - $s * $b;
                        $vectors[$q][$k] = $s * $a + $c * $b;
                    }
                }
            }
        }

        $values = array_map(static fn (int $i): float => $matrix[$i][$i], array_keys($matrix));

        return [$values, array_map(array_values(...), $vectors)];
    }
}
