<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Stroke\Stroke;

/**
 * What sets a plain stroke apart from another at equal odds: fewer cushions, then less speed, then less side, nearer natural roll. It is a
 * share of a shot's worth that only decides between shots that a few tries cannot tell apart; odds never contain it.
 *
 * @internal
 */
final class Plainness
{
    private const CUSHION = 0.004;
    /** Speed that costs nothing, m/s, and what each m/s more costs; from the speed on at which errors begin to grow, more. */
    private const SOFT = 1.0;
    private const SPEED = 0.006;
    private const FIRM = 2.2;
    private const HARDER = 0.006;
    private const SIDE = 0.02;
    /** Height of the tip for natural roll, fractions of the radius, and what each radius below costs. */
    private const NATURAL = 0.2;
    private const BELOW = 0.01;

    /**
     * @param float $speed    just after the hit, m/s
     * @param float $side     of the tip, fractions of the radius
     * @param float $height   likewise
     * @param float $cushions of the cue ball, on the average
     *
     * @return float share of the worth, 0 to 1
     */
    public static function fuss(float $speed, float $side, float $height, float $cushions): float
    {
        return min(0.5, self::CUSHION * $cushions
            + self::SPEED * max(0.0, $speed - self::SOFT)
            + self::HARDER * max(0.0, $speed - self::FIRM)
            + self::SIDE * abs($side)
            + self::BELOW * max(0.0, self::NATURAL - $height));
    }

    public static function of(Stroke $stroke, float $cushions): float
    {
        return self::fuss($stroke->speed, $stroke->tip->side, $stroke->tip->height, $cushions);
    }
}
