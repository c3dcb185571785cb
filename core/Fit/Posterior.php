<?php

declare(strict_types=1);

namespace ZigLane\Core\Fit;

use ZigLane\Core\Math\Matrix;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Player\Randomness;

/**
 * What the parameters may be: for few shots by a walk over the likelihood (Metropolis et al., J. Chem. Phys. 21, 1953), as it is lopsided
 * then and the top of it too low for deviations; for many by the normal distribution at the top.
 *
 * @internal
 */
final class Posterior
{
    /** By how much intervals are widened beside what the likelihood says, so that they hold what they should (measured: docs/log.md). */
    private const WIDER = 1.35;
    /** Shots, by weight, above which the normal distribution serves. */
    private const MANY = 300;
    /** Steps, shots times steps at the most, and steps before they count. */
    private const STEPS = 2400;
    private const WORK = 200_000;
    private const BURNT = 300;
    /** The share of steps taken that is aimed at while the walk finds its stride (Roberts and Rosenthal, Stat. Sci. 16, 2001). */
    private const TAKEN = 0.25;

    /**
     * @param list<float>       $top
     * @param list<list<float>> $covariance at the top, with what the noise of the draws moves it by
     * @param list<list<float>> $sure       the same as if there were none
     *
     * @return list<array{float, float, float}> of each parameter the middle and the ends of its 90 percent interval
     */
    public static function of(Likelihood $likelihood, array $top, array $covariance, array $sure, int $seed): array
    {
        $spread = array_map(static fn (int $k): float => self::WIDER * \sqrt(max(0.0, $covariance[$k][$k])), array_keys($top));
        $stretch = array_map(
            static fn (int $k): float => self::WIDER * \sqrt(max(1.0, $covariance[$k][$k] / max(1e-18, $sure[$k][$k]))),
            array_keys($top),
        );
        if ([] === $likelihood->draws || \count($likelihood->draws) > self::MANY) {
            return array_map(
                static fn (float $middle, float $error): array => [
                    $middle, $middle - Trials::NINETY * $error, $middle + Trials::NINETY * $error,
                ],
                $top,
                $spread,
            );
        }
        $walk = self::walk($likelihood->thinned($top), $top, $covariance, new Randomness(3 * $seed + 1));

        return array_map(static function (int $k) use ($walk, $stretch): array {
            $values = array_column($walk, $k);
            sort($values);
            $at = static fn (float $share): float => $values[(int) round($share * (\count($values) - 1))];
            $middle = $at(0.5);

            return [$middle, $middle + $stretch[$k] * ($at(0.05) - $middle), $middle + $stretch[$k] * ($at(0.95) - $middle)];
        }, array_keys($top));
    }

    /**
     * @param list<float>       $top
     * @param list<list<float>> $covariance
     *
     * @return list<list<float>>
     */
    private static function walk(Likelihood $likelihood, array $top, array $covariance, Randomness $random): array
    {
        $size = \count($top);
        $root = Matrix::root($covariance, array_fill(0, $size, 1e-9));
        $at = $top;
        $value = $likelihood->value($at);
        $stride = 2.4 / \sqrt($size);
        $walk = [];
        $steps = min(self::STEPS, max(2 * self::BURNT, intdiv(self::WORK, max(1, \count($likelihood->draws)))));
        for ($step = 0; $step < $steps; ++$step) {
            $z = [];
            for ($k = 0; $k < $size; ++$k) {
                $z[] = $random->normal();
            }
            $next = [];
            foreach ($root as $i => $row) {
                $place = $at[$i];
                for ($j = 0; $j <= $i; ++$j) {
                    $place += $stride * $row[$j] * $z[$j];
                }
                $next[] = $place;
            }
            $there = $likelihood->value($next);
            $isTaken = log(max(1e-300, $random->share())) < $there - $value;
            if ($isTaken) {
                [$at, $value] = [$next, $there];
            }
            if ($step < self::BURNT) {
                $stride *= exp(0.05 * (($isTaken ? 1.0 : 0.0) - self::TAKEN));
            } else {
                $walk[] = $at;
            }
        }

        return $walk;
    }
}
