<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Error\SimulationLimit;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\TableProfile;

/**
 * A ball that meets a cushion: the impulse at the nose grows while friction acts at the nose and at the cloth.
 *
 * Mathavan, Jackson and Parkin, A theoretical analysis of billiard ball dynamics under cushion impacts, Proc. IMechE C 224
 * (2010), with sticking: where a slip has ended, friction takes the value inside its cone that keeps it ended. The impulse at
 * the nose (over mass and speed of approach) is the independent variable; the state is the approach and the two slips, at the
 * nose (s: along the cushion and up across it) and at the cloth (u: along and across), which change linearly with the
 * frictions there (F and G, as vectors of coefficients).
 *
 * Each step takes friction from the slip that the step would end with, half old and half new: it is what ends the slip where
 * the cone allows that, and cannot overshoot it otherwise. Second order but for the steps in which a slip ends; with the
 * default number of steps within 0.1 % in speed and 0.05 degrees of the law (tests/Reference holds it to that).
 *
 * The law is homogeneous: the outcome scales with the speed of approach, so everything is computed for an approach of 1.
 */
final readonly class CushionLaw
{
    private float $sin;
    private float $cos;
    private float $noseFriction;
    private float $clothFriction;
    private float $returned;
    private float $radius;

    /** @param int $steps steps of compression; restitution takes about as many */
    public function __construct(TableProfile $table, BallSet $balls, private int $steps = 120)
    {
        $this->sin = $table->noseHeight - 1;
        $this->cos = sqrt(1 - $this->sin ** 2);
        $this->noseFriction = $table->cushionFriction;
        $this->clothFriction = $table->slide;
        $this->returned = $table->cushionRestitution ** 2;
        $this->radius = $balls->radius;
    }

    /**
     * Velocity and spin after the contact, in the frame of the cushion: x along it, y into it, z up.
     *
     * @param float $vx along the cushion, m/s
     * @param float $vy towards it, m/s, > 0
     * @param float $wx spin, rad/s, with $wy and $wz
     *
     * @return array{float, float, float, float, float} vx, vy, wx, wy, wz
     */
    public function rebound(float $vx, float $vy, float $wx, float $wy, float $wz): array
    {
        $sin = $this->sin;
        $cos = $this->cos;
        $mu = $this->noseFriction;
        $cloth = $this->clothFriction;
        $rim = $this->radius / $vy;
        $a = $vx / $vy;
        $p = $wx * $rim;
        $q = $wy * $rim;
        $r = $wz * $rim;

        // Rates of the slips: nose along = along.G - 3.5 F, nose up = sin cos + up.G - inertia F, and so at the cloth.
        $along = 2.5 * $sin - 1;
        $up = $sin - 2.5;
        $inertia = $sin * $sin + 2.5;
        $drift = $sin * $cos;

        $sx = $a + $q * $sin - $r * $cos;
        $st = $p - $sin;
        $ux = $a - $q;
        $uy = 1 + $p;
        $b = 1.0;
        $work = 0.0;
        $target = \INF;
        $fx = $ft = $gx = $gy = 0.0;
        $sumFx = $sumFt = $sumGx = $sumGy = 0.0;
        $h = 1 / ($cos * $this->steps);
        for ($step = 0, $most = 20 * $this->steps; $step < $most; ++$step) {
            // At the nose: the slips that the step would end with if the nose had no friction.
            $ex = $sx + $h * $along * $gx;
            $et = $st + $h * ($drift + $up * $gy);
            $fx = $ex / (3.5 * $h);
            $ft = $et / ($inertia * $h);
            if ($fx * $fx + $ft * $ft > $mu * $mu) {
                $share = $mu * $h / sqrt($ex * $ex + $et * $et);
                $fx = $sx + $ex * (1 - 3.5 * $share);
                $ft = $st + $et * (1 - $inertia * $share);
                $size = sqrt($fx * $fx + $ft * $ft);
                $size = $size > 1e-14 ? $mu / $size : 0.0;
                $fx *= $size;
                $ft *= $size;
            }
            // At the cloth, which the nose loads.
            $limit = $cloth * ($sin + $ft * $cos);
            if ($limit <= 0.0) {
                $gx = $gy = 0.0;
            } else {
                $ex = $ux + $h * $along * $fx;
                $et = $uy + $h * ($up * $ft - $cos);
                $slip = sqrt($ex * $ex + $et * $et);
                if ($slip <= 3.5 * $h * $limit) {
                    $gx = $ex / (3.5 * $h);
                    $gy = $et / (3.5 * $h);
                } else {
                    $share = 1 - 3.5 * $h * $limit / $slip;
                    $gx = $ux + $ex * $share;
                    $gy = $uy + $et * $share;
                    $size = sqrt($gx * $gx + $gy * $gy);
                    $size = $size > 1e-14 ? $limit / $size : 0.0;
                    $gx *= $size;
                    $gy *= $size;
                }
            }
            $rate = $sin * $ft - $cos - $gy;
            $next = $b + $h * $rate;
            if (\INF === $target && $next <= 0.0) {
                // Compression ends within the step; the energetic share of its work will be given back.
                $share = $b / ($b - $next);
                $target = $this->returned * ($work + 0.5 * $cos * $b * $share * $h);
                $work = -0.5 * $cos * $next * (1 - $share) * $h;
            } else {
                $work += 0.5 * $cos * abs($b + $next) * $h;
            }
            if ($work >= $target) {
                // Restitution ends within the step: go back to where the work given back is the target.
                $before = $work + 0.5 * $cos * ($b + $next) * $h;
                $missing = $target - max(0.0, $before);
                $start = min($b, 0.0);
                $slope = -$cos * $start;
                $part = 2 * $missing / ($slope + sqrt($slope * $slope - 2 * $cos * $rate * $missing));
                if ($b > 0.0) {
                    $part -= $b / $rate;
                }
                $b += $part * $rate;
                $back = 1 / $rim;
                $sumFx += $part * $fx;
                $sumFt += $part * $ft;
                $sumGx += $part * $gx;
                $sumGy += $part * $gy;

                return [
                    ($a - $sumFx - $sumGx) * $vy,
                    $b * $vy,
                    ($p - 2.5 * ($sumFt + $sumGy)) * $back,
                    ($q - 2.5 * ($sumFx * $sin - $sumGx)) * $back,
                    ($r + 2.5 * $sumFx * $cos) * $back,
                ];
            }
            $b = $next;
            $sumFx += $h * $fx;
            $sumFt += $h * $ft;
            $sumGx += $h * $gx;
            $sumGy += $h * $gy;
            $sx += $h * ($along * $gx - 3.5 * $fx);
            $st += $h * ($drift - $inertia * $ft + $up * $gy);
            $ux += $h * ($along * $fx - 3.5 * $gx);
            $uy += $h * ($up * $ft - $cos - 3.5 * $gy);
        }

        throw SimulationLimit::cushion($this->steps);
    }
}
