<?php

declare(strict_types=1);

namespace ZigLane\Core\Fit;

use ZigLane\Core\Log\Log;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Math\Matrix;
use ZigLane\Core\Odds\Trials;
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
    private const PASSES = [[200, 2.6], [320, 1.8], [640, 1.5]];
    /** A parameter is learned where its interval is less than this share of the prior's. */
    private const LEARNED = 0.75;
    private const STEPS = 40;
    /** The latest shots that are used: a fit of more takes longer and tells no more that lasts. */
    public const MOST = 2000;

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
        $likelihood = new Likelihood([], $base);
        $at = $likelihood->start;
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
            $likelihood = new Likelihood($draws, $base);
            [$at, $hessian] = self::climbed($likelihood, $at);
        }

        $sure = Matrix::inverse($hessian);
        $covariance = self::covariance($sure, $likelihood->noise($at));

        return self::fit(
            \count($shots),
            \count($draws),
            Posterior::of($likelihood, $at, $covariance, $sure, $seed),
            $base,
            $prior,
        );
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
     * @param list<float> $at
     *
     * @return array{list<float>, list<list<float>>} the top, and the matrix of second derivatives there, negative
     */
    private static function climbed(Likelihood $likelihood, array $at): array
    {
        [$value, $gradient, $hessian] = $likelihood->derivatives($at);
        $damping = 1e-3;
        for ($step = 0; $step < self::STEPS; ++$step) {
            $matrix = [];
            foreach ($hessian as $k => $row) {
                $row[$k] += $damping * abs($row[$k]) + 1e-9;
                $matrix[] = array_values($row);
            }
            $move = Matrix::solved($matrix, $gradient);
            $next = [];
            foreach ($at as $k => $place) {
                $most = $k < 4 ? 0.5 : 0.5 * exp($at[$k - 4]);
                $next[] = $place + max(-$most, min($most, $move[$k]));
            }
            [$higher, $newGradient, $newHessian] = $likelihood->derivatives($next);
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
     * The covariance at the top: that of the likelihood, and what the noise of the draws moves the top by.
     *
     * @param list<list<float>> $inverse of the matrix of second derivatives
     * @param list<list<float>> $noise   variance of the gradient
     *
     * @return list<list<float>>
     */
    private static function covariance(array $inverse, array $noise): array
    {
        $sum = $inverse;
        for ($i = 0; $i < 8; ++$i) {
            for ($j = 0; $j < 8; ++$j) {
                for ($k = 0; $k < 8; ++$k) {
                    for ($l = 0; $l < 8; ++$l) {
                        $sum[$i][$j] += $inverse[$i][$k] * $noise[$k][$l] * $inverse[$l][$j];
                    }
                }
            }
        }

        return array_map(array_values(...), $sum);
    }

    /**
     * @param list<array{float, float, float}> $found each parameter's middle and 90 percent interval
     * @param list<float>                      $base
     */
    private static function fit(int $shots, int $used, array $found, array $base, ExecutionErrors $prior): LogFit
    {
        $deviations = $biases = [];
        foreach (LogFit::FIELDS as $k => $field) {
            [$middle, $low, $high] = $found[$k];
            $deviations[$field] = new FittedNumber(
                exp($middle),
                [exp($low), exp($high)],
                $base[$k],
                $high - $low < 2 * self::LEARNED * Trials::NINETY * Likelihood::FACTOR,
            );
            [$middle, $low, $high] = $found[$k + 4];
            $biases[$field] = new FittedNumber(
                $middle,
                [$low, $high],
                null,
                $high - $low < 2 * self::LEARNED * Trials::NINETY * Likelihood::BIAS * $base[$k],
            );
        }

        return new LogFit($shots, $used, $deviations, $biases, $prior);
    }
}
