<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

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
 * Each step takes friction from the slip that the step would end with, half old and half new: it is what ends the slip where the cone
 * allows that, and cannot overshoot it otherwise. Second order but for the steps in which a slip ends. A step is as long as the directions
 * of the slips allow: it turns neither by more than about a quarter of a radian and goes half of the way to where one ends. Some 33 steps
 * are so, in 99 of 100 impacts, within 0.04 % in speed and 0.02 degrees of their own limit, and but for one in ten thousand (a slip that
 * just fails to end) within 0.1 % and 0.05 degrees (tests/Reference holds it to that).
 *
 * Written without min, max and abs: their results have no fixed type, which costs the compiled loop a factor of eight.
 * The law is homogeneous: the outcome scales with the speed of approach, so everything is computed for an approach of 1.
 */
final class CushionLaw
{
    /** Steps after which no ball is still at the nose; a contact takes about thirty-three. */
    private const MOST_STEPS = 100_000;

    /** A slip that ends is come to in steps of half of what is left. */
    private const LANDING = 2.0;

    private readonly float $sin;
    private readonly float $cos;
    private readonly float $noseFriction;
    private readonly float $clothFriction;
    private readonly float $returned;
    private readonly float $radius;
    private readonly float $longest;
    private readonly float $shortest;
    private readonly float $turns;

    /** @var float of the ball that met the cushion last, m/s; without a type of its own, which every write would be checked against */
    public $vx = 0.0;
    /** @var float */
    public $vy = 0.0;
    /** @var float rad/s */
    public $wx = 0.0;
    /** @var float */
    public $wy = 0.0;
    /** @var float */
    public $wz = 0.0;

    /** @param float $grain length of the steps against the usual ones */
    public function __construct(TableProfile $table, BallSet $balls, float $grain = 1.0)
    {
        $this->sin = $table->noseHeight - 1;
        $this->cos = \sqrt(1 - $this->sin ** 2);
        $this->noseFriction = $table->cushionFriction;
        $this->clothFriction = $table->slide;
        $this->returned = $table->cushionRestitution ** 2;
        $this->radius = $balls->radius;
        $this->longest = 0.10 * $grain;
        $this->shortest = 0.004 * $grain;
        $this->turns = 4.0 / $grain;
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
        return $this->reboundFrom(0.0, 1.0, $vx, $vy, $wx, $wy, $wz);
    }

    /**
     * Velocity and spin after the contact with a cushion that lies in the direction (nx, ny), in the frame of the table.
     *
     * @param float $nx unit vector towards the cushion, with $ny; the ball comes towards it
     * @param float $vx velocity, m/s, with $vy
     * @param float $wx spin, rad/s, with $wy and $wz
     *
     * @return array{float, float, float, float, float} vx, vy, wx, wy, wz
     */
    public function reboundFrom(float $nx, float $ny, float $vx, float $vy, float $wx, float $wy, float $wz): array
    {
        $this->meet($nx, $ny, $vx, $vy, $wx, $wy, $wz);

        return [$this->vx, $this->vy, $this->wx, $this->wy, $this->wz];
    }

    /**
     * Writes velocity and spin after the contact down in vx, vy, wx, wy and wz until the next contact: an array would be a tenth of
     * the work.
     */
    public function meet(float $nx, float $ny, float $vx, float $vy, float $wx, float $wy, float $wz): void
    {
        $sin = $this->sin;
        $cos = $this->cos;
        $mu = $this->noseFriction;
        $cloth = $this->clothFriction;
        $longest = $this->longest;
        $shortest = $this->shortest;
        $turns = $this->turns;
        $speed = $vx * $nx + $vy * $ny;
        $rim = $this->radius / $speed;
        $a = ($vx * $ny - $vy * $nx) / $speed;
        $p = ($wx * $ny - $wy * $nx) * $rim;
        $q = ($wx * $nx + $wy * $ny) * $rim;
        $r = $wz * $rim;

        // Rates of the slips: nose along = along.G - 3.5 F, nose up = sin cos + up.G - inertia F, and so at the cloth.
        $along = 2.5 * $sin - 1;
        $up = $sin - 2.5;
        $inertia = $sin * $sin + 2.5;
        $drift = $sin * $cos;
        $stickX = 1 / 3.5;
        $stickT = 1 / $inertia;

        $sx = $a + $q * $sin - $r * $cos;
        $st = $p - $sin;
        $ux = $a - $q;
        $uy = 1 + $p;
        $b = 1.0;
        $work = 0.0;
        $target = \INF;
        $h = 0.0;
        $sumFx = $sumFt = $sumGx = $sumGy = 0.0;

        // The frictions at the start, for the length of the first step.
        $size = $sx * $sx + $st * $st;
        $size = $size > 0.0 ? $mu / \sqrt($size) : 0.0;
        $fx = $size * $sx;
        $ft = $size * $st;
        $limit = $cloth * ($sin + $ft * $cos);
        $limit = $limit > 0.0 ? $limit : 0.0;
        $size = $ux * $ux + $uy * $uy;
        $slides = $size > 1e-24;
        if ($slides) {
            $size = $limit / \sqrt($size);
            $gx = $size * $ux;
            $gy = $size * $uy;
        } else {
            // A rolling ball: what rounding left of its slip must not decide on the length of a step.
            $ux = $uy = 0.0;
            $gx = $along * $fx / 3.5;
            $gy = ($up * $ft - $cos) / 3.5;
            $size = $gx * $gx + $gy * $gy;
            if ($size > $limit * $limit) {
                $slides = true;
                $size = $limit / \sqrt($size);
                $gx *= $size;
                $gy *= $size;
            }
        }
        for ($step = 0; $step < self::MOST_STEPS; ++$step) {
            // How fast the slips change, and how far they may in one step.
            $dsx = $along * $gx - 3.5 * $fx;
            $dst = $drift - $inertia * $ft + $up * $gy;
            $dux = $along * $fx - 3.5 * $gx;
            $duy = $up * $ft - $cos - 3.5 * $gy;
            $sx += $h * $dsx;
            $st += $h * $dst;
            $ux += $h * $dux;
            $uy += $h * $duy;
            // The shortest of up to three lengths, as a fraction: one division.
            $part = $longest;
            $of = 1.0;
            $turn = $sx * $dst - $st * $dsx;
            $closing = -$sx * $dsx - $st * $dst;
            $pace = ($turn < 0.0 ? -$turns * $turn : $turns * $turn) + ($closing > 0.0 ? self::LANDING * $closing : 0.0);
            $size = $sx * $sx + $st * $st;
            if ($pace * $part > $size) {
                $part = $size;
                $of = $pace;
            }
            if ($slides) {
                $turn = $ux * $duy - $uy * $dux;
                $closing = -$ux * $dux - $uy * $duy;
                $pace = ($turn < 0.0 ? -$turns * $turn : $turns * $turn) + ($closing > 0.0 ? self::LANDING * $closing : 0.0);
                $size = $ux * $ux + $uy * $uy;
                if ($pace * $part > $size * $of) {
                    $part = $size;
                    $of = $pace;
                }
            }
            if ($part < $shortest * $of) {
                $h = $shortest;
            } elseif (1.0 === $of) {
                $h = $longest;
            } else {
                $h = $part / $of;
            }
            // At the nose: the slips that the step would end with if the nose had no friction; then half of the old direction and
            // half of the new, both as long as the new one is before its direction is taken.
            $ex = $sx + $h * $along * $gx;
            $et = $st + $h * ($drift + $up * $gy);
            $ends = $mu * $h;
            $fx = $ex * $stickX;
            $ft = $et * $stickT;
            if ($fx * $fx + $ft * $ft > $ends * $ends) {
                $size = \sqrt($ex * $ex + $et * $et);
                $fx = ($sx + $ex) * $size - 3.5 * $ends * $ex;
                $ft = ($st + $et) * $size - $inertia * $ends * $et;
                $size = \sqrt($fx * $fx + $ft * $ft);
                $size = $size > 1e-28 ? $mu / $size : 0.0;
                $fx *= $size;
                $ft *= $size;
            } else {
                $size = 1 / $h;
                $fx *= $size;
                $ft *= $size;
            }
            // At the cloth, which the nose loads.
            $limit = $cloth * ($sin + $ft * $cos);
            $slides = true;
            if ($limit <= 0.0) {
                $gx = $gy = 0.0;
            } else {
                $ex = $ux + $h * $along * $fx;
                $et = $uy + $h * ($up * $ft - $cos);
                $size = \sqrt($ex * $ex + $et * $et);
                $ends = 3.5 * $h * $limit;
                if ($size <= $ends) {
                    $size = $stickX / $h;
                    $gx = $ex * $size;
                    $gy = $et * $size;
                    $slides = false;
                } else {
                    $gx = ($ux + $ex) * $size - $ends * $ex;
                    $gy = ($uy + $et) * $size - $ends * $et;
                    $size = \sqrt($gx * $gx + $gy * $gy);
                    $size = $size > 1e-28 ? $limit / $size : 0.0;
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
                $path = 0.5 * $cos * $h * ($b + $next);
                $work += $path < 0.0 ? -$path : $path;
            }
            if ($work >= $target) {
                // Restitution ends within the step: go back to where the work given back is the target.
                $before = $work + 0.5 * $cos * ($b + $next) * $h;
                $missing = $before > 0.0 ? $target - $before : $target;
                $start = $b < 0.0 ? $b : 0.0;
                $slope = -$cos * $start;
                $h = 2 * $missing / ($slope + \sqrt($slope * $slope - 2 * $cos * $rate * $missing));
                if ($b > 0.0) {
                    $h -= $b / $rate;
                }
                $b += $h * $rate;
                $back = 1 / $rim;
                $sumFx += $h * $fx;
                $sumFt += $h * $ft;
                $sumGx += $h * $gx;
                $sumGy += $h * $gy;
                $vx = ($a - $sumFx - $sumGx) * $speed;
                $vy = $b * $speed;
                $wx = ($p - 2.5 * ($sumFt + $sumGy)) * $back;
                $wy = ($q - 2.5 * ($sumFx * $sin - $sumGx)) * $back;
                $this->vx = $vx * $ny + $vy * $nx;
                $this->vy = $vy * $ny - $vx * $nx;
                $this->wx = $wx * $ny + $wy * $nx;
                $this->wy = $wy * $ny - $wx * $nx;
                $this->wz = ($r + 2.5 * $sumFx * $cos) * $back;

                return;
            }
            $b = $next;
            $sumFx += $h * $fx;
            $sumFt += $h * $ft;
            $sumGx += $h * $gx;
            $sumGy += $h * $gy;
        }

        throw SimulationLimit::cushion(self::MOST_STEPS);
    }
}
