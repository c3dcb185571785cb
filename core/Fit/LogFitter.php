<?php

declare(strict_types=1);

namespace ZigLane\Core\Fit;

use ZigLane\Core\Log\Log;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Player\ExecutionErrors;

/**
 * A player's deviations and biases from his log, by maximum likelihood with a wide prior (importance sampling; docs/log.md). For each shot
 * strokes are drawn from a wide proposal and played once; their weights give the likelihood of any candidate errors. It is climbed by
 * Newton's method with the exact derivatives of the weighted sums (Louis, J. R. Stat. Soc. B 44, 1982); then the strokes are drawn again
 * about what was found, and it is climbed once more. Intervals are those of the normal approximation at the top (Laplace).
 *
 * Parameters: logarithms of the four deviations, then the four biases.
 */
final class LogFitter
{
    /** Strokes drawn for a shot in each pass, and how much wider than what is known the proposal is. */
    private const PASSES = [[160, 1.9], [640, 1.4]];
    /** The prior of a deviation: a factor of two either way is one standard deviation of its logarithm. */
    private const FACTOR = 0.6931471805599453;
    /** The prior of a bias: its standard deviation as a share of the prior's deviation. */
    private const BIAS = 1.5;
    /** A parameter is learned where its interval is less than this share of the prior's. */
    private const LEARNED = 0.75;
    private const STEPS = 40;
    /** Normal quantile of a 90 percent interval. */
    private const NINETY = 1.6448536269514722;
    /** The latest shots that are used: a fit of more takes longer and tells no more that lasts. */
    private const MOST = 2000;

    /**
     * @param float                        $halfLife days after which a shot weighs half; 0: all weigh the same
     * @param (\Closure(float): void)|null $progress is told the share that is done
     */
    public static function of(Log $log, int $seed = 1, float $halfLife = 90.0, ?\Closure $progress = null): LogFit
    {
        $shots = $log->shots();
        $recent = \array_slice($shots, -self::MOST);
        $weights = self::weights($recent, $halfLife);
        $prior = $log->player;
        $sampler = new ShotSampler($prior->growth);
        $base = [$prior->aim, $prior->speed, $prior->tipSide, $prior->tipHeight];
        $base = array_map(static fn (float $deviation, float $least): float => max($deviation, $least), $base, [0.004, 0.004, 0.05, 0.05]);
        $start = [...array_map(log(...), $base), 0.0, 0.0, 0.0, 0.0];
        $at = $start;
        $draws = [];
        $hessian = [];
        foreach (self::PASSES as $pass => [$count, $wide]) {
            $middle = [$at[4], $at[5], $at[6], $at[7]];
            $spread = [$wide * exp($at[0]), $wide * exp($at[1]), $wide * exp($at[2]), $wide * exp($at[3])];
            $draws = [];
            foreach ($recent as $i => $shot) {
                $drawn = $sampler->draw($shot, $middle, $spread, $count, $weights[$i], $seed * 1_000_003 + 7919 * $pass + $i);
                if (null !== $drawn) {
                    $draws[] = $drawn;
                }
                if (null !== $progress) {
                    $progress(($pass + $i / \count($recent)) / \count(self::PASSES));
                }
            }
            [$at, $hessian] = self::climbed($draws, $at, $start, $base);
        }

        return self::fit(\count($shots), \count($draws), $at, self::inverse($hessian), $base, $prior);
    }

    /**
     * @param list<LoggedShot> $shots
     *
     * @return list<float>
     */
    private static function weights(array $shots, float $halfLife): array
    {
        $times = array_map(static fn (LoggedShot $shot): ?int => $shot->at?->getTimestamp(), $shots);
        $last = max([0, ...array_filter($times, static fn (?int $time): bool => null !== $time)]);

        return array_map(
            static fn (?int $time): float => $halfLife <= 0.0 || null === $time ? 1.0 : 0.5 ** (max(0, $last - $time) / 86400 / $halfLife),
            $times,
        );
    }

    /**
     * @param list<ShotDraws> $draws
     * @param list<float>     $at
     * @param list<float>     $start
     * @param list<float>     $base
     *
     * @return array{list<float>, list<list<float>>} the top, and the matrix of second derivatives there, negative
     */
    private static function climbed(array $draws, array $at, array $start, array $base): array
    {
        [$value, $gradient, $hessian] = self::evaluated($draws, $at, $start, $base);
        $damping = 1e-3;
        for ($step = 0; $step < self::STEPS; ++$step) {
            $matrix = [];
            foreach ($hessian as $k => $row) {
                $row[$k] += $damping * abs($row[$k]) + 1e-9;
                $matrix[] = array_values($row);
            }
            $move = self::solved($matrix, $gradient);
            $next = [];
            foreach ($at as $k => $place) {
                $most = $k < 4 ? 0.5 : 0.5 * exp($at[$k - 4]);
                $next[] = $place + max(-$most, min($most, $move[$k]));
            }
            [$higher, $newGradient, $newHessian] = self::evaluated($draws, $next, $start, $base);
            if ($higher >= $value) {
                $gain = $higher - $value;
                [$at, $value, $gradient, $hessian] = [$next, $higher, $newGradient, $newHessian];
                $damping = max(1e-6, 0.3 * $damping);
                if ($gain < 1e-5) {
                    break;
                }
            } else {
                $damping *= 8.0;
                if ($damping > 1e6) {
                    break;
                }
            }
        }

        return [$at, $hessian];
    }

    /**
     * The logarithm of likelihood and prior with its derivatives.
     *
     * @param list<ShotDraws> $draws
     * @param list<float>     $at
     * @param list<float>     $start
     * @param list<float>     $base
     *
     * @return array{float, list<float>, list<list<float>>} value, gradient, and the negative matrix of second derivatives
     */
    private static function evaluated(array $draws, array $at, array $start, array $base): array
    {
        $deviations = array_map(exp(...), \array_slice($at, 0, 4));
        $value = 0.0;
        $gradient = array_fill(0, 8, 0.0);
        $hessian = array_fill(0, 8, array_fill(0, 8, 0.0));
        foreach ($draws as $draw) {
            $sd = $share = [];
            for ($k = 0; $k < 4; ++$k) {
                $own = $deviations[$k] * $draw->factors[$k];
                $sd[$k] = 0 === $k ? hypot($own, $draw->judgement) : $own;
                // How the deviation of this shot grows with the player's own: less where judgement has a part in it.
                $share[$k] = ($own / $sd[$k]) ** 2;
            }
            $norm = 1 / ($sd[0] * $sd[1] * $sd[2] * $sd[3] * $draw->count);
            $total = 0.0;
            $first = array_fill(0, 8, 0.0);
            $second = array_fill(0, 36, 0.0);
            foreach ($draw->kept as [$aim, $speed, $side, $height, $weight]) {
                $z0 = ($aim - $at[4]) / $sd[0];
                $z1 = ($speed - $at[5]) / $sd[1];
                $z2 = ($side - $at[6]) / $sd[2];
                $z3 = ($height - $at[7]) / $sd[3];
                $square = $z0 * $z0 + $z1 * $z1 + $z2 * $z2 + $z3 * $z3;
                $p = $norm * $weight * exp(-0.5 * $square);
                if ($p < 1e-300) {
                    continue;
                }
                $total += $p;
                $g = [
                    $share[0] * ($z0 * $z0 - 1), $share[1] * ($z1 * $z1 - 1),
                    $share[2] * ($z2 * $z2 - 1), $share[3] * ($z3 * $z3 - 1),
                    $z0 / $sd[0], $z1 / $sd[1], $z2 / $sd[2], $z3 / $sd[3],
                ];
                $own = [$z0, $z1, $z2, $z3];
                $at2 = 0;
                for ($i = 0; $i < 8; ++$i) {
                    $pg = $p * $g[$i];
                    $first[$i] += $pg;
                    for ($j = 0; $j <= $i; ++$j) {
                        $second[$at2++] += $pg * $g[$j];
                    }
                }
                // Second derivatives of the logarithm of the density itself, of each pair of deviation and bias.
                for ($k = 0; $k < 4; ++$k) {
                    $zz = $own[$k] * $own[$k];
                    $part = $share[$k];
                    $second[intdiv($k * ($k + 1), 2) + $k] += $p * 2 * $part * ((1 - $part) * ($zz - 1) - $part * $zz);
                    $b = 4 + $k;
                    $second[intdiv($b * ($b + 1), 2) + $k] += $p * -2 * $share[$k] * $own[$k] / $sd[$k];
                    $second[intdiv($b * ($b + 1), 2) + $b] += $p * -1 / $sd[$k] ** 2;
                }
            }
            $all = $total + $draw->outlier;
            $value += $draw->weight * log($all);
            $at2 = 0;
            for ($i = 0; $i < 8; ++$i) {
                $gradient[$i] += $draw->weight * $first[$i] / $all;
                for ($j = 0; $j <= $i; ++$j) {
                    $hessian[$i][$j] -= $draw->weight * ($second[$at2++] / $all - $first[$i] * $first[$j] / $all ** 2);
                }
            }
        }
        for ($k = 0; $k < 8; ++$k) {
            $width = $k < 4 ? self::FACTOR : self::BIAS * $base[$k - 4];
            $off = ($at[$k] - ($k < 4 ? $start[$k] : 0.0)) / $width;
            $value -= 0.5 * $off ** 2;
            $gradient[$k] -= $off / $width;
            $hessian[$k][$k] += 1 / $width ** 2;
            for ($j = 0; $j < $k; ++$j) {
                $hessian[$j][$k] = $hessian[$k][$j];
            }
        }

        return [$value, $gradient, array_values(array_map(array_values(...), $hessian))];
    }

    /**
     * @param list<float>       $at
     * @param list<list<float>> $covariance
     * @param list<float>       $base
     */
    private static function fit(int $shots, int $used, array $at, array $covariance, array $base, ExecutionErrors $prior): LogFit
    {
        $deviations = $biases = [];
        foreach (LogFit::FIELDS as $k => $field) {
            $error = self::NINETY * \sqrt(max(0.0, $covariance[$k][$k]));
            $deviations[$field] = new FittedNumber(
                exp($at[$k]),
                [exp($at[$k] - $error), exp($at[$k] + $error)],
                $base[$k],
                $error < self::LEARNED * self::NINETY * self::FACTOR,
            );
            $error = self::NINETY * \sqrt(max(0.0, $covariance[$k + 4][$k + 4]));
            $biases[$field] = new FittedNumber(
                $at[$k + 4],
                [$at[$k + 4] - $error, $at[$k + 4] + $error],
                null,
                $error < self::LEARNED * self::NINETY * self::BIAS * $base[$k],
            );
        }

        return new LogFit($shots, $used, $deviations, $biases, $prior);
    }

    /**
     * Gauss's elimination with pivots.
     *
     * @param list<list<float>> $matrix
     * @param list<float>       $right
     *
     * @return list<float>
     */
    private static function solved(array $matrix, array $right): array
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
    private static function inverse(array $matrix): array
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
}
