<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

use ZigLane\Core\Motion\SimulationLimit;

/**
 * When a moving point first comes within a distance of the origin, or leaves a circle about it.
 *
 * @internal
 */
final class Approach
{
    /**
     * First time in [0, horizon] at which a point that starts at d with velocity v and acceleration a is within `reach` of the
     * origin and not receding; INF if there is none. The gap |d| - reach bends upwards by no more than -|a|, so each step goes
     * to the zero of a parabola that lies below the gap: it cannot overshoot the root, and converges as Newton's method does
     * (halving its error at a grazing double root, where some twenty steps reach the tolerance).
     *
     * @throws SimulationLimit If the root is not isolated within a bound that no known case comes near
     */
    public static function within(
        float $dx, float $dy, float $vx, float $vy, float $ax, float $ay, float $reach, float $tolerance,
        float $horizon,
    ): float {
        $bend = \sqrt($ax * $ax + $ay * $ay);
        $t = 0.0;
        for ($step = 0; $step < 2000; ++$step) {
            $x = $dx + $t * ($vx + 0.5 * $t * $ax);
            $y = $dy + $t * ($vy + 0.5 * $t * $ay);
            $distance = \sqrt($x * $x + $y * $y);
            $gap = $distance - $reach;
            // The rate of the gap times the distance: a division less.
            $rate = $x * ($vx + $t * $ax) + $y * ($vy + $t * $ay);
            if ($gap <= $tolerance) {
                $ux = $vx + $t * $ax;
                $uy = $vy + $t * $ay;
                $across = ($x * $uy - $y * $ux) / $distance;
                // Second derivative of the gap: a touching pair that neither closes nor is pressed together parts by itself.
                if ($rate < 0.0 || (0.0 === $rate && ($across * $across + $x * $ax + $y * $ay) / $distance < -1e-9)) {
                    return $t;
                }
                // They part, or slide along each other: look again later, and ever less often up to some milliseconds.
                $wait = 1e-6 * (1 + $step);
                if (0.0 === $bend) {
                    return \INF;
                }
                $rate *= 2 / ($bend * $distance);
                $t += $rate > $wait ? $rate : $wait;
            } elseif ($bend > 0.0) {
                $root = \sqrt($rate * $rate + 2 * $bend * $gap * $distance * $distance);
                $t += $rate < 0.0 ? 2 * $gap * $distance / ($root - $rate) : ($rate + $root) / ($bend * $distance);
            } elseif ($rate < 0.0) {
                $t -= $gap * $distance / $rate;
            } else {
                return \INF;
            }
            if (!($t <= $horizon)) {
                return \INF;
            }
        }

        throw SimulationLimit::contactSearch($t);
    }

    /**
     * First time in [0, horizon] at which a point inside a circle of radius `reach` about the origin leaves it; INF if it stays.
     * The square of its distance bends by no more than a bound taken over the whole horizon, so each step goes to where a
     * steeper parabola leaves: it cannot overshoot.
     *
     * @throws SimulationLimit If the root is not isolated within a bound that no known case comes near
     */
    public static function leaving(float $dx, float $dy, float $vx, float $vy, float $ax, float $ay, float $reach, float $horizon): float
    {
        $pull = \sqrt($ax * $ax + $ay * $ay);
        $fastest = \sqrt($vx * $vx + $vy * $vy) + $pull * $horizon;
        $bend = 2 * ($fastest * $fastest + 1.01 * $reach * $pull) + 1e-30;
        $t = 0.0;
        for ($step = 0; $step < 2000; ++$step) {
            $x = $dx + $t * ($vx + 0.5 * $t * $ax);
            $y = $dy + $t * ($vy + 0.5 * $t * $ay);
            $inside = $x * $x + $y * $y - $reach * $reach;
            $rate = 2 * ($x * ($vx + $t * $ax) + $y * ($vy + $t * $ay));
            if ($inside >= -1e-13) {
                if ($rate > 0.0) {
                    return $t;
                }
                $inside = -1e-13;
            }
            $t += (\sqrt($rate * $rate - 2 * $bend * $inside) - $rate) / $bend;
            if (!($t <= $horizon)) {
                return \INF;
            }
        }

        throw SimulationLimit::contactSearch($t);
    }
}
