<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/**
 * One piece of a path on which the acceleration is constant: from `start` for `duration` seconds (both >= 0). Position,
 * velocity and spin are those at its start. SI units.
 */
final readonly class Segment
{
    public function __construct(
        public float $start,
        public float $duration,
        public Phase $phase,
        public float $x,
        public float $y,
        public float $vx,
        public float $vy,
        public float $ax,
        public float $ay,
        public float $wx = 0.0,
        public float $wy = 0.0,
        public float $wz = 0.0,
    ) {
    }

    public function end(): float
    {
        return $this->start + $this->duration;
    }

    /** @param float $time seconds after the strike, within this piece */
    public function at(float $time): Spot
    {
        $dt = $time - $this->start;

        return Spot::metres($this->x + $dt * ($this->vx + 0.5 * $dt * $this->ax), $this->y + $dt * ($this->vy + 0.5 * $dt * $this->ay));
    }

    /** @return array{float, float} velocity in m/s */
    public function velocity(float $time): array
    {
        $dt = $time - $this->start;

        return [$this->vx + $dt * $this->ax, $this->vy + $dt * $this->ay];
    }

    /** @return array{float, float, float} spin in rad/s at a time within this piece */
    public function spin(float $time, BallSet $balls, TableProfile $table): array
    {
        $dt = $time - $this->start;
        $turn = Phase::Sliding === $this->phase ? 2.5 / $balls->radius * $dt : 0.0;
        $left = max(0.0, abs($this->wz) - $table->spinDecay * $dt);
        [$vx, $vy] = $this->velocity($time);
        // Friction alone turns it.
        [$pullX, $pullY] = $table->pull();

        return Phase::Rolling === $this->phase
            ? [-$vy / $balls->radius, $vx / $balls->radius, $this->wz < 0 ? -$left : $left]
            : [$this->wx + $turn * ($this->ay - $pullY), $this->wy - $turn * ($this->ax - $pullX), $this->wz < 0 ? -$left : $left];
    }

    /**
     * The middle control point of the quadratic Bezier curve that is exactly this piece (its end points are those of the
     * piece): where the tangents at both ends meet.
     */
    public function control(): Spot
    {
        return Spot::metres($this->x + 0.5 * $this->duration * $this->vx, $this->y + 0.5 * $this->duration * $this->vy);
    }

    /** Length of the path in metres, exact: the speed is the square root of a quadratic in time. */
    public function length(): float
    {
        $a = $this->ax ** 2 + $this->ay ** 2;
        $b = $this->vx * $this->ax + $this->vy * $this->ay;
        $c = $this->vx ** 2 + $this->vy ** 2;
        $t = $this->duration;
        if ($a * $t * $t <= 1e-18 * max($c, 1e-30)) {
            return \sqrt($c) * $t;
        }
        // The integral of sqrt(c + 2 b t + a t^2), with w = a t + b and k = a c - b^2 >= 0.
        $k = max(0.0, $a * $c - $b * $b);
        $primitive = static function (float $w) use ($k, $a): float {
            $root = \sqrt($w * $w + $k);

            return ($w * $root + ($k > 0 ? $k * asinh($w / \sqrt($k)) : 0.0)) / (2 * $a * \sqrt($a));
        };

        return $primitive($a * $t + $b) - $primitive($b);
    }
}
