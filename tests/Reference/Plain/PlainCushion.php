<?php

declare(strict_types=1);

namespace ZigLane\Tests\Reference\Plain;

/**
 * The cushion law integrated in plain explicit steps with vectors, as Mathavan, Jackson and Parkin (Proc. IMechE C 224, 2010)
 * describe it; their step in impulse is P / 2000 and smaller. Default table and balls, written out.
 */
final class PlainCushion
{
    private const R = 0.028575;

    /**
     * @param array{float, float}        $v along the cushion, towards it
     * @param array{float, float, float} $w
     *
     * @return array{float, float, float, float, float}
     */
    public static function rebound(array $v, array $w, int $steps): array
    {
        [$sin, $cos, $mu, $cloth] = [0.27, \sqrt(1 - 0.27 ** 2), 0.40, 0.20];
        $n = [0.0, $cos, $sin];
        $t = [0.0, -$sin, $cos];
        $v[] = 0.0;
        $p = $v[1] / $cos / $steps;
        $work = 0.0;
        $target = null;
        while (true) {
            $nose = self::cross($w, [0.0, self::R * $cos, self::R * $sin]);
            $nose = [$v[0] + $nose[0], $v[1] + $nose[1], $v[2] + $nose[2]];
            $along = $nose[0];
            $up = $nose[0] * $t[0] + $nose[1] * $t[1] + $nose[2] * $t[2];
            $slip = hypot($along, $up) ?: 1.0;
            $bed = self::cross($w, [0.0, 0.0, -self::R]);
            $bed = [$v[0] + $bed[0], $v[1] + $bed[1]];
            $bedSlip = hypot(...$bed) ?: 1.0;
            $load = max(0.0, $p * ($sin + $mu * $up / $slip * $cos));
            $atNose = [
                -$mu * $p * $along / $slip,
                -$n[1] * $p - $mu * $p * $up / $slip * $t[1],
                -$n[2] * $p - $mu * $p * $up / $slip * $t[2],
            ];
            $atBed = [-$cloth * $load * $bed[0] / $bedSlip, -$cloth * $load * $bed[1] / $bedSlip, 0.0];
            $before = $v[1];
            $v[0] += $atNose[0] + $atBed[0];
            $v[1] += $atNose[1] + $atBed[1];
            $turnNose = self::cross([0.0, $cos, $sin], $atNose);
            $turnBed = self::cross([0.0, 0.0, -1.0], $atBed);
            foreach ([0, 1, 2] as $i) {
                $w[$i] += 2.5 / self::R * ($turnNose[$i] + $turnBed[$i]);
            }
            $work += $cos * abs($before + $v[1]) / 2 * $p;
            if (null === $target && $v[1] <= 0.0) {
                $target = 0.81 * $work;
                $work = 0.0;
            } elseif (null !== $target && $work >= $target) {
                return [$v[0], $v[1], $w[0], $w[1], $w[2]];
            }
        }
    }

    /**
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     *
     * @return array{float, float, float}
     */
    private static function cross(array $a, array $b): array
    {
        return [$a[1] * $b[2] - $a[2] * $b[1], $a[2] * $b[0] - $a[0] * $b[2], $a[0] * $b[1] - $a[1] * $b[0]];
    }
}
