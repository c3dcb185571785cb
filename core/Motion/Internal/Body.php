<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

use ZigLane\Core\Motion\CushionLaw;

/**
 * One ball while a shot is simulated: its state at `since` (its own time base), the constant accelerations from then on, and
 * what will happen to it next. SI units. Its numbers have their types in words only: PHP checks every write to a typed property
 * by a call, an eighth of the engine's work (docs/performance.md).
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

    /** @var float */
    public $since = 0.0;
    /** @var float */
    public $vx = 0.0;
    /** @var float */
    public $vy = 0.0;
    /** @var float */
    public $ax = 0.0;
    /** @var float */
    public $ay = 0.0;
    /** @var float */
    public $wx = 0.0;
    /** @var float */
    public $wy = 0.0;
    /** @var float */
    public $wz = 0.0;
    /** @var float rates of wx and wy while sliding. */
    public $bx = 0.0;
    /** @var float */
    public $by = 0.0;
    /** @var int */
    public $phase = self::AT_REST;
    /** @var float when the phase ends by itself. */
    public $phaseEnds = \INF;

    /** @var int the pocket whose surroundings the ball is in, as an index; -1 on the open table. */
    public $zone = -1;
    /** @var float when it drops unless it leaves the hole's circle before; INF outside the circle. */
    public $drops = \INF;

    /** @var float its next event with the table or with its own motion. */
    public $ownTime = \INF;
    /** @var int */
    public $ownKind = 0;
    /** @var int */
    public $ownSurface = -1;
    /** @var float its next meeting with another ball. */
    public $pairTime = \INF;
    /** @var self|null */
    public $partner;

    /** @var float the box that the centre stays in until its own next event. */
    public $left = 0.0;
    /** @var float */
    public $right = 0.0;
    /** @var float */
    public $bottom = 0.0;
    /** @var float */
    public $top = 0.0;

    public bool $hasMoved = false;

    /** @var array<int, float> until when a surface that it is pressed to is left alone, keyed by surface */
    public array $pressedUntil = [];

    /** @var list<array{float, int, float, float, float, float, float, float, float, float, float}> since, phase, x, y, vx, vy, ax, ay, wx, wy, wz */
    public array $track = [];

    /** @var float */
    public $x;
    /** @var float */
    public $y;

    /** @param bool $isTracked whether the pieces of its path are kept */
    public function __construct(public readonly int $index, float $x, float $y, private readonly bool $isTracked = true)
    {
        $this->x = $x;
        $this->y = $y;
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
        $vx = $this->vx;
        $vy = $this->vy;
        $ux = $vx - $radius * $this->wy;
        $uy = $vy + $radius * $this->wx;
        $slip = \sqrt($ux * $ux + $uy * $uy);
        $this->since = $now;
        $this->bx = 0.0;
        $this->by = 0.0;
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
            $vx -= 2 / 7 * $ux;
            $vy -= 2 / 7 * $uy;
            $this->vx = $vx;
            $this->vy = $vy;
            $speed = \sqrt($vx * $vx + $vy * $vy);
            if ($speed > $cloth->still) {
                $this->phase = self::ROLLING;
                $this->wx = -$vy / $radius;
                $this->wy = $vx / $radius;
                $this->ax = -$cloth->rollRate * $vx / $speed;
                $this->ay = -$cloth->rollRate * $vy / $speed;
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
        $ax = $this->ax;
        $ay = $this->ay;
        $ex = $x + $seconds * ($this->vx + 0.5 * $seconds * $ax);
        $ey = $y + $seconds * ($this->vy + 0.5 * $seconds * $ay);
        $bend = 0.125 * $seconds * $seconds;
        $bx = $ax < 0.0 ? -$bend * $ax : $bend * $ax;
        $by = $ay < 0.0 ? -$bend * $ay : $bend * $ay;
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
