<?php

declare(strict_types=1);

namespace ZigLane\Core\Math;

/** The standard normal distribution. */
final class Normal
{
    /** Quantile of a 95 percent interval. */
    public const NINETY_FIVE = 1.959964;

    /**
     * Standard error of the mean of so many values, two at the least.
     *
     * @param float $sum of them, and of their squares
     */
    public static function errorOfMean(float $sum, float $squares, int $count): float
    {
        return \sqrt(max(0.0, $squares - $sum ** 2 / $count) / ($count - 1) / $count);
    }

    /** Chance of a value up to z (Abramowitz and Stegun 26.2.17, error below 7.5e-8). */
    public static function upTo(float $z): float
    {
        $t = 1 / (1 + 0.2316419 * abs($z));
        $series = 0.319381530 + $t * (-0.356563782 + $t * (1.781477937 + $t * (-1.821255978 + $t * 1.330274429)));
        $tail = exp(-0.5 * $z * $z) / \sqrt(2 * \M_PI) * $t * $series;

        return $z >= 0.0 ? 1 - $tail : $tail;
    }

    /** Chance of a value between two; either may be infinite. */
    public static function between(float $low, float $high): float
    {
        return self::upTo($high) - self::upTo($low);
    }
}
