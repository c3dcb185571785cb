<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

use ZigLane\Core\Motion\CushionLaw;

/**
 * One ball while a shot is simulated: its state at `since` (its own time base), the constant accelerations from then on, and
 * what will happen to it next. SI units.
 *
 * @internal
 */
final class Body
{
    public const SLIDING = 0;
    public const ROLLING = 1;
    public const SPINNING = 2;
    public const AT_REST = 3;
    public const POCKETED = 4;
    public const CONTACT = 5;

    public float $since = 0.0;
    public float $vx = 0.0;
    public float $vy = 0.0;
    public float $ax = 0.0;
    public float $ay = 0.0;
    public float $wx = 0.0;
    public float $wy = 0.0;
    public float $wz = 0.0;
    /** Rates of wx and wy while sliding. */
    public float $bx = 0.0;
    public float $by = 0.0;
    public int $phase = self::AT_REST;
    /** When the phase ends by itself. */
    public float $phaseEnds = \INF;

    /** The pocket whose surroundings the ball is in, as an index; -1 on the open table. */
    public int $zone = -1;
    /** When it drops unless it leaves the hole's circle before; INF outside the circle. */
    public float $drops = \INF;

    /** Its next event with the table or with its own motion. */
    public float $ownTime = \INF;
    public int $ownKind = 0;
    public int $ownSurface = -1;
    /** Its next meeting with another ball. */
    public float $pairTime = \INF;
    public ?self $partner = null;

    /** The box that the centre stays in until its own next event. */
    public float $left = 0.0;
    public float $right = 0.0;
    public float $bottom = 0.0;
    public float $top = 0.0;

    public bool $hasMoved = false;

    /** @var array<int, float> until when a surface that it is pressed to is left alone, keyed by surface */
    public array $pressedUntil = [];

    /** @var list<array{float, int, float, float, float, float, float, float, float, float, float}> since, phase, x, y, vx, vy, ax, ay, wx, wy, wz */
    public array $track = [];

    /** @param bool $isTracked whether the pieces of its path are kept */
    public function __construct(public readonly int $index, public float $x, public float $y, private readonly bool $isTracked = true)
    {
    }

    public function isMoving(): bool
    {
        return $this->phase <= self::ROLLING;
    }

    /** It lies where it lies until something meets it. */
    public function lie(): void
    {
        $this->left = $this->right = $this->x;
        $this->bottom = $this->top = $this->y;
        if ($this->isTracked) {
            $this->track[] = [0.0, self::AT_REST, $this->x, $this->y, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
        }
    }

    /** Moves the state and its time base to a later time within the present phase. */
    public function advance(Cloth $cloth, float $time): void
    {
        $dt = $time - $this->since;
        if ($dt <= 0.0) {
            return;
        }
        $this->since = $time;
        if ($this->phase <= self::ROLLING) {
            $this->x += $dt * ($this->vx + 0.5 * $dt * $this->ax);
            $this->y += $dt * ($this->vy + 0.5 * $dt * $this->ay);
            $this->vx += $dt * $this->ax;
            $this->vy += $dt * $this->ay;
            if (self::ROLLING === $this->phase) {
                $this->wx = -$this->vy / $cloth->radius;
                $this->wy = $this->vx / $cloth->radius;
            } else {
                $this->wx += $dt * $this->bx;
                $this->wy += $dt * $this->by;
            }
        }
        if (0.0 !== $this->wz) {
            $lost = $cloth->spinDecay * $dt;
            $this->wz = abs($this->wz) <= $lost ? 0.0 : ($this->wz > 0 ? $this->wz - $lost : $this->wz + $lost);
        }
    }

    /** Finds the phase from velocity and spin, and with it accelerations and the end of the phase. */
    public function settle(Cloth $cloth, float $now): void
    {
        $radius = $cloth->radius;
        $ux = $this->vx - $radius * $this->wy;
        $uy = $this->vy + $radius * $this->wx;
        $slip = \sqrt($ux * $ux + $uy * $uy);
        $this->since = $now;
        $this->bx = $this->by = 0.0;
        if ($slip > $cloth->slip) {
            $this->phase = self::SLIDING;
            $rate = $cloth->slideRate / $slip;
            $this->ax = -$rate * $ux;
            $this->ay = -$rate * $uy;
            $turn = 2.5 * $rate / $radius;
            $this->bx = -$turn * $uy;
            $this->by = $turn * $ux;
            $this->phaseEnds = $now + 2 * $slip / (7 * $cloth->slideRate);
            $this->hasMoved = true;
        } else {
            // What little slip is left goes as sliding would have ended it, so that no energy is gained.
            $this->vx -= 2 / 7 * $ux;
            $this->vy -= 2 / 7 * $uy;
            $speed = \sqrt($this->vx * $this->vx + $this->vy * $this->vy);
            if ($speed > $cloth->still) {
                $this->phase = self::ROLLING;
                $this->wx = -$this->vy / $radius;
                $this->wy = $this->vx / $radius;
                $this->ax = -$cloth->rollRate * $this->vx / $speed;
                $this->ay = -$cloth->rollRate * $this->vy / $speed;
                $this->phaseEnds = $now + $speed / $cloth->rollRate;
                $this->hasMoved = true;
            } else {
                $this->stand($cloth, $now);
            }
        }
        if ($this->isTracked) {
            $this->track[] = [$this->since, $this->phase, $this->x, $this->y, $this->vx, $this->vy, $this->ax, $this->ay, $this->wx, $this->wy, $this->wz];
        }
    }

    /** Writes a piece of path on which contacts acted: straight, from the present spot, with the mean velocity. */
    public function trackContact(float $vx, float $vy): void
    {
        if ($this->isTracked) {
            $this->track[] = [$this->since, self::CONTACT, $this->x, $this->y, $vx, $vy, 0.0, 0.0, $this->wx, $this->wy, $this->wz];
        }
    }

    /** The ball has dropped: it takes part in nothing any more. */
    public function drop(float $time): void
    {
        $this->phase = self::POCKETED;
        $this->phaseEnds = $this->ownTime = $this->pairTime = \INF;
        $this->partner = null;
        $this->vx = $this->vy = $this->ax = $this->ay = 0.0;
        if ($this->isTracked) {
            $this->track[] = [$time, self::POCKETED, $this->x, $this->y, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
        }
    }

    /** Finds the box that the centre stays in for so long: chord and sagitta of its parabola along each axis. */
    public function sweep(float $seconds): void
    {
        $x = $this->x;
        $y = $this->y;
        $this->left = $this->right = $x;
        $this->bottom = $this->top = $y;
        if ($this->phase > self::ROLLING) {
            return;
        }
        $ex = $x + $seconds * ($this->vx + 0.5 * $seconds * $this->ax);
        $ey = $y + $seconds * ($this->vy + 0.5 * $seconds * $this->ay);
        $bend = 0.125 * $seconds * $seconds;
        $bx = $this->ax < 0.0 ? -$bend * $this->ax : $bend * $this->ax;
        $by = $this->ay < 0.0 ? -$bend * $this->ay : $bend * $this->ay;
        if ($ex < $x) {
            $this->left = $ex - $bx;
            $this->right = $x + $bx;
        } else {
            $this->left = $x - $bx;
            $this->right = $ex + $bx;
        }
        if ($ey < $y) {
            $this->bottom = $ey - $by;
            $this->top = $y + $by;
        } else {
            $this->bottom = $y - $by;
            $this->top = $ey + $by;
        }
    }

    /** Comes back from a surface that lies in the direction (nx, ny) and is met at the given speed of approach, m/s. */
    public function rebound(CushionLaw $law, float $nx, float $ny, float $approach): void
    {
        [$vx, $vy, $wx, $wy, $this->wz] = $law->rebound(
            $this->vx * $ny - $this->vy * $nx,
            $approach,
            $this->wx * $ny - $this->wy * $nx,
            $this->wx * $nx + $this->wy * $ny,
            $this->wz,
        );
        $this->vx = $vx * $ny + $vy * $nx;
        $this->vy = $vy * $ny - $vx * $nx;
        $this->wx = $wx * $ny + $wy * $nx;
        $this->wy = $wy * $ny - $wx * $nx;
    }

    /** Ends the present phase by its own law and finds the next. */
    public function endPhase(Cloth $cloth, float $now): void
    {
        if (self::SLIDING === $this->phase) {
            $this->wx = -$this->vy / $cloth->radius;
            $this->wy = $this->vx / $cloth->radius;
        } elseif (self::ROLLING === $this->phase) {
            $this->vx = $this->vy = $this->wx = $this->wy = 0.0;
        } else {
            $this->wz = 0.0;
        }
        $this->settle($cloth, $now);
    }

    private function stand(Cloth $cloth, float $now): void
    {
        $this->vx = $this->vy = $this->ax = $this->ay = $this->wx = $this->wy = 0.0;
        if (abs($this->wz) > $cloth->spin) {
            $this->phase = self::SPINNING;
            $this->phaseEnds = $now + abs($this->wz) / $cloth->spinDecay;
            $this->hasMoved = true;
        } else {
            $this->wz = 0.0;
            $this->phase = self::AT_REST;
            $this->phaseEnds = \INF;
        }
    }
}
