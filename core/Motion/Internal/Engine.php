<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

use ZigLane\Core\Error\SimulationLimit;
use ZigLane\Core\Motion\BallContact;
use ZigLane\Core\Motion\CushionLaw;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Motion\Tolerances;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\TableProfile;

/**
 * The event-driven simulation. Between events every ball moves on a parabola; the next event is the earliest of each ball's
 * own (its phase ends, it meets a cushion, it drops) and of each pair's contact. After an event only the balls that it
 * changed, and those whose predicted partner changed, are searched again. Cost: O(n) searches an event for n balls.
 *
 * Surfaces or balls that stay pressed together would meet endlessly at ever shorter intervals. A contact slower than
 * `slowApproach` is therefore plastic, makes no event, and is looked at again only after `pressed` seconds.
 *
 * @internal
 */
final class Engine
{
    private const PHASE_ENDS = 0;
    private const SURFACE = 1;
    private const ENTERS_ZONE = 2;
    private const LEAVES_ZONE = 3;
    private const ENTERS_HOLE = 4;
    private const LEAVES_HOLE = 5;
    private const DROPS = 6;

    /** Time inside the hole's circle after which a ball has dropped, seconds (physics of the table, section 6). */
    private const DROP_TIME = 0.040;

    private readonly Surfaces $surfaces;
    private readonly BallContact $contact;
    private readonly CushionLaw $cushion;
    private readonly Cloth $cloth;
    private readonly float $radius;

    /** @var list<Body> */
    private array $bodies = [];

    /** @var list<array{float, EventKind, Body, Body|null, int, float, float}> time, kind, ball, other ball, surface or pocket, x, y */
    private array $events = [];

    /** @var array<int, float> until when a pair that is pressed together is left alone, keyed by both indices */
    private array $pressedUntil = [];

    private float $now = 0.0;

    public function __construct(TableProfile $table, private readonly BallSet $balls, private readonly Tolerances $tolerances)
    {
        $this->surfaces = new Surfaces($table, $balls);
        $this->contact = new BallContact($balls);
        $this->cushion = new CushionLaw($table, $balls);
        $this->radius = $balls->radius;
        $this->cloth = Cloth::of($table, $balls, $tolerances);
    }

    /**
     * Runs until every ball rests or has dropped.
     *
     * @param list<Body> $bodies with their velocities set; their order is that of the layout
     *
     * @return list<array{float, EventKind, Body, Body|null, int, float, float}> time, kind, ball, other ball, surface or pocket, x, y
     *
     * @throws SimulationLimit If the bound on steps is met
     */
    public function run(array $bodies): array
    {
        $this->bodies = $bodies;
        $this->events = $this->pressedUntil = [];
        $this->now = 0.0;
        foreach ($bodies as $body) {
            $s = $this->surfaces;
            $gap = min($body->x, $s->length - $body->x, $body->y, $s->width - $body->y) - $this->radius;
            $body->zone = $gap < -1e-4 ? $s->nearestPocket($body->x, $body->y) : -1;
            $body->settle($this->cloth, 0.0);
        }
        foreach ($bodies as $body) {
            $this->searchOwn($body);
        }
        foreach ($bodies as $body) {
            $this->searchPairs($body);
        }
        for ($step = 0;; ++$step) {
            $next = null;
            $time = \INF;
            $isPair = false;
            foreach ($this->bodies as $body) {
                if ($body->ownTime < $time) {
                    $time = $body->ownTime;
                    $next = $body;
                    $isPair = false;
                }
                if ($body->pairTime < $time) {
                    $time = $body->pairTime;
                    $next = $body;
                    $isPair = true;
                }
            }
            if (null === $next) {
                break;
            }
            if ($step >= $this->tolerances->maxSteps) {
                throw SimulationLimit::events($this->tolerances->maxSteps, $this->now);
            }
            $this->now = max($this->now, $time);
            if ($isPair) {
                $this->meet($this->fastestAt($next));
            } else {
                $this->happen($next);
            }
        }

        return $this->events;
    }

    // ---- what a ball does by itself -------------------------------------------------------------------------------------

    private function searchOwn(Body $b): void
    {
        $b->ownTime = $b->phaseEnds;
        $b->ownKind = self::PHASE_ENDS;
        $b->ownSurface = -1;
        if (Body::POCKETED === $b->phase) {
            $b->ownTime = \INF;

            return;
        }
        if ($b->zone >= 0) {
            $this->searchZone($b);
        } elseif ($b->isMoving()) {
            $this->searchRails($b);
        }
    }

    /** On the open table: the first of the four nose lines that the ball reaches, on its nose or in a mouth. */
    private function searchRails(Body $b): void
    {
        $s = $this->surfaces;
        $radius = $this->radius;
        $tolerance = $this->tolerances->gap;
        for ($rail = 0; $rail < 4; ++$rail) {
            $t = match ($rail) {
                0 => Approach::crossing($b->x - $radius, $b->vx, $b->ax, $tolerance),
                1 => Approach::crossing($s->length - $radius - $b->x, -$b->vx, -$b->ax, $tolerance),
                2 => Approach::crossing($b->y - $radius, $b->vy, $b->ay, $tolerance),
                default => Approach::crossing($s->width - $radius - $b->y, -$b->vy, -$b->ay, $tolerance),
            };
            if ($b->since + $t >= $b->ownTime) {
                continue;
            }
            $along = $rail < 2 ? $b->y + $t * ($b->vy + 0.5 * $t * $b->ay) : $b->x + $t * ($b->vx + 0.5 * $t * $b->ax);
            if ($s->isOnNose($rail, $along)) {
                $this->propose($b, $t, self::SURFACE, $rail);
            } else {
                $this->propose($b, $t, self::ENTERS_ZONE, -1);
            }
        }
    }

    /** In the surroundings of a pocket: the rails beside it, its noses, facings and hole, and the way back to the open table. */
    private function searchZone(Body $b): void
    {
        if ($b->drops < \INF) {
            $this->propose($b, $b->drops - $b->since, self::DROPS, -1);
        }
        if (!$b->isMoving()) {
            return;
        }
        $s = $this->surfaces;
        $radius = $this->radius;
        $tolerance = $this->tolerances->gap;
        [$nax, $nay, $nbx, $nby, $fax, $fay, $fbx, $fby, $max, $may, $mbx, $mby, $mx, $my, $axisX, $axisY, $hx, $hy, $holeRadius, $before] = $s->pockets[$b->zone];
        [$x, $y, $vx, $vy, $ax, $ay] = [$b->x, $b->y, $b->vx, $b->vy, $b->ax, $b->ay];
        $isSide = 1 === $b->zone % 3;
        $this->searchRailBeside($b, $b->zone < 3 ? 2 : 3);
        if (!$isSide) {
            $this->searchRailBeside($b, 0 === $b->zone % 3 ? 0 : 1);
        }
        $first = 4 + 4 * $b->zone;
        foreach ([[$nax, $nay, $fax, $fay, $max, $may, 0], [$nbx, $nby, $fbx, $fby, $mbx, $mby, 1]] as [$nx, $ny, $fx, $fy, $px, $py, $k]) {
            $gap = ($x - $nx) * $px + ($y - $ny) * $py - $radius;
            $t = Approach::crossing($gap, $vx * $px + $vy * $py, $ax * $px + $ay * $py, $tolerance);
            if ($b->since + $t < $b->ownTime) {
                $foot = ($x + $t * ($vx + 0.5 * $t * $ax) - $nx) * $fx + ($y + $t * ($vy + 0.5 * $t * $ay) - $ny) * $fy;
                if ($foot >= 0.0 && $gap > -1e-4) {
                    $this->propose($b, $t, self::SURFACE, $first + $k);
                }
            }
            $t = Approach::within($x - $nx, $y - $ny, $vx, $vy, $ax, $ay, $radius, $tolerance, $b->ownTime - $b->since);
            if ($t < \INF) {
                $this->propose($b, $t, self::SURFACE, $first + 2 + $k);
            }
        }
        // The hole: into its circle, out again, or past its middle.
        $middle = ($hx - $x) * $axisX + ($hy - $y) * $axisY;
        $this->propose($b, Approach::crossing($middle, -$vx * $axisX - $vy * $axisY, -$ax * $axisX - $ay * $axisY, $tolerance), self::DROPS, -1);
        if ($b->drops < \INF) {
            $horizon = $b->ownTime - $b->since;
            $t = Polynomial::quadraticDistance($x - $hx, $y - $hy, $vx, $vy, $ax, $ay, $holeRadius + 1e-9)->firstRoot($horizon);
            if (null !== $t) {
                $this->propose($b, $t, self::LEAVES_HOLE, -1);
            }
        } else {
            $this->propose($b, Approach::within($x - $hx, $y - $hy, $vx, $vy, $ax, $ay, $holeRadius, $tolerance, $b->ownTime - $b->since), self::ENTERS_HOLE, -1);
        }
        // Back to the open table.
        $depth = ($x - $mx) * $axisX + ($y - $my) * $axisY + $before;
        $this->propose($b, Approach::crossing($depth, $vx * $axisX + $vy * $axisY, $ax * $axisX + $ay * $axisY, $tolerance), self::LEAVES_ZONE, -1);
        if ($isSide) {
            $reach = $s->sideHalf + $before;
            $this->propose($b, Approach::crossing($reach - ($x - $mx), -$vx, -$ax, $tolerance), self::LEAVES_ZONE, -1);
            $this->propose($b, Approach::crossing($reach + ($x - $mx), $vx, $ax, $tolerance), self::LEAVES_ZONE, -1);
        }
    }

    private function searchRailBeside(Body $b, int $rail): void
    {
        $s = $this->surfaces;
        [$gap, $v, $a] = match ($rail) {
            0 => [$b->x - $this->radius, $b->vx, $b->ax],
            1 => [$s->length - $this->radius - $b->x, -$b->vx, -$b->ax],
            2 => [$b->y - $this->radius, $b->vy, $b->ay],
            default => [$s->width - $this->radius - $b->y, -$b->vy, -$b->ay],
        };
        if ($gap < -1e-4) {
            // Already between the noses: these are met at their points.
            return;
        }
        $t = Approach::crossing($gap, $v, $a, $this->tolerances->gap);
        if ($b->since + $t < $b->ownTime) {
            $along = $rail < 2 ? $b->y + $t * ($b->vy + 0.5 * $t * $b->ay) : $b->x + $t * ($b->vx + 0.5 * $t * $b->ax);
            if ($s->isOnNose($rail, $along)) {
                $this->propose($b, $t, self::SURFACE, $rail);
            }
        }
    }

    private function propose(Body $b, float $after, int $kind, int $surface): void
    {
        $time = $b->since + $after;
        if (self::SURFACE === $kind && isset($b->pressedUntil[$surface])) {
            $time = max($time, $b->pressedUntil[$surface]);
        }
        if ($time < $b->ownTime) {
            $b->ownTime = $time;
            $b->ownKind = $kind;
            $b->ownSurface = $surface;
        }
    }

    private function happen(Body $b): void
    {
        $b->advance($this->cloth, $this->now);
        switch ($b->ownKind) {
            case self::PHASE_ENDS:
                $this->endPhase($b);
                break;
            case self::SURFACE:
                $this->rebound($b, $b->ownSurface);
                break;
            case self::ENTERS_ZONE:
                $b->zone = $this->surfaces->nearestPocket($b->x, $b->y);
                break;
            case self::LEAVES_ZONE:
                $b->zone = -1;
                break;
            case self::ENTERS_HOLE:
                $b->drops = $this->now + self::DROP_TIME;
                break;
            case self::LEAVES_HOLE:
                $b->drops = \INF;
                break;
            case self::DROPS:
                $this->record(EventKind::Pocket, $b, null, $b->zone);
                $b->phase = Body::POCKETED;
                $b->phaseEnds = \INF;
                $b->track[] = [$this->now, Body::POCKETED, $b->x, $b->y, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
                break;
        }
        $this->searchOwn($b);
        $this->searchPairs($b);
    }

    private function endPhase(Body $b): void
    {
        $b->endPhase($this->cloth, $this->now);
        if (Body::ROLLING === $b->phase) {
            $this->record(EventKind::Roll, $b);
        } elseif (Body::AT_REST === $b->phase) {
            $this->record(EventKind::Rest, $b);
        }
    }

    // ---- contacts -------------------------------------------------------------------------------------------------------

    private function rebound(Body $b, int $surface): void
    {
        [$nx, $ny, $gap] = $this->towards($b, $surface);
        $approach = $b->vx * $nx + $b->vy * $ny;
        if ($approach <= 0.0) {
            // Left by itself while it was let alone; the pressure is over.
            unset($b->pressedUntil[$surface]);
            $b->settle($this->cloth, $this->now);

            return;
        }
        $t = $this->tolerances;
        $pressed = ($b->pressedUntil[$surface] ?? -1.0) >= $this->now - $t->gap;
        if ($approach < ($pressed ? $t->pressedApproach : $t->slowApproach)) {
            $b->vx -= $approach * $nx;
            $b->vy -= $approach * $ny;
            if ($gap < 0.0 && $gap > -1e-4) {
                $b->x += $gap * $nx;
                $b->y += $gap * $ny;
            }
            $b->pressedUntil[$surface] = $this->now + $t->pressed;
            $b->settle($this->cloth, $this->now);

            return;
        }
        unset($b->pressedUntil[$surface]);
        [$vx, $vy, $wx, $wy, $wz] = $this->cushion->rebound(
            $b->vx * $ny - $b->vy * $nx,
            $approach,
            $b->wx * $ny - $b->wy * $nx,
            $b->wx * $nx + $b->wy * $ny,
            $b->wz,
        );
        $b->vx = $vx * $ny + $vy * $nx;
        $b->vy = $vy * $ny - $vx * $nx;
        $b->wx = $wx * $ny + $wy * $nx;
        $b->wy = $wy * $ny - $wx * $nx;
        $b->wz = $wz;
        $surface < 4 ? $this->record(EventKind::Cushion, $b, null, $surface) : $this->record(EventKind::Jaw, $b, null, intdiv($surface, 4) - 1);
        $b->settle($this->cloth, $this->now);
    }

    /**
     * Horizontal unit vector from the ball's centre towards a surface, and the gap between them.
     *
     * @return array{float, float, float}
     */
    private function towards(Body $b, int $surface): array
    {
        $s = $this->surfaces;
        $radius = $this->radius;
        switch ($surface) {
            case 0: return [-1.0, 0.0, $b->x - $radius];
            case 1: return [1.0, 0.0, $s->length - $radius - $b->x];
            case 2: return [0.0, -1.0, $b->y - $radius];
            case 3: return [0.0, 1.0, $s->width - $radius - $b->y];
        }
        $pocket = $s->pockets[intdiv($surface, 4) - 1];
        $k = $surface % 4;
        $dx = $b->x - $pocket[2 * ($k % 2)];
        $dy = $b->y - $pocket[2 * ($k % 2) + 1];
        if ($k < 2) {
            $mx = $pocket[8 + 2 * $k];
            $my = $pocket[9 + 2 * $k];

            return [-$mx, -$my, $dx * $mx + $dy * $my - $radius];
        }
        $distance = sqrt($dx * $dx + $dy * $dy);

        return [-$dx / $distance, -$dy / $distance, $distance - $radius];
    }

    /** Predicts when this ball meets each of the others, and mends the prediction of balls that counted on it. */
    private function searchPairs(Body $b): void
    {
        $b->pairTime = \INF;
        $b->partner = null;
        foreach ($this->bodies as $other) {
            if ($other === $b) {
                continue;
            }
            $time = $this->meeting($b, $other);
            if ($time < $b->pairTime) {
                $b->pairTime = $time;
                $b->partner = $other;
            }
            if ($other->partner === $b) {
                $this->searchAgain($other, $b, $time);
            } elseif ($time < $other->pairTime) {
                $other->pairTime = $time;
                $other->partner = $b;
            }
        }
    }

    /** Its partner's path changed: this ball's earliest meeting is looked for among all. */
    private function searchAgain(Body $b, Body $changed, float $time): void
    {
        $b->pairTime = $time;
        $b->partner = $time < \INF ? $changed : null;
        foreach ($this->bodies as $other) {
            if ($other === $b || $other === $changed) {
                continue;
            }
            $time = $this->meeting($b, $other);
            if ($time < $b->pairTime) {
                $b->pairTime = $time;
                $b->partner = $other;
            }
        }
    }

    /** When two balls meet, at the latest until either's own next event changes its path. */
    private function meeting(Body $a, Body $b): float
    {
        if ((!$a->isMoving() && !$b->isMoving()) || Body::POCKETED === $a->phase || Body::POCKETED === $b->phase) {
            return \INF;
        }
        if ($b->index < $a->index) {
            [$a, $b] = [$b, $a];
        }
        $now = $this->now;
        $horizon = min($a->ownTime, $b->ownTime) - $now;
        $ta = $now - $a->since;
        $tb = $now - $b->since;
        $dx = $b->x - $a->x;
        $dy = $b->y - $a->y;
        $vx = $vy = $ax = $ay = 0.0;
        if ($b->isMoving()) {
            $dx += $tb * ($b->vx + 0.5 * $tb * $b->ax);
            $dy += $tb * ($b->vy + 0.5 * $tb * $b->ay);
            $vx = $b->vx + $tb * $b->ax;
            $vy = $b->vy + $tb * $b->ay;
            $ax = $b->ax;
            $ay = $b->ay;
        }
        if ($a->isMoving()) {
            $dx -= $ta * ($a->vx + 0.5 * $ta * $a->ax);
            $dy -= $ta * ($a->vy + 0.5 * $ta * $a->ay);
            $vx -= $a->vx + $ta * $a->ax;
            $vy -= $a->vy + $ta * $a->ay;
            $ax -= $a->ax;
            $ay -= $a->ay;
        }
        $time = $now + Approach::within($dx, $dy, $vx, $vy, $ax, $ay, 2 * $this->radius, $this->tolerances->gap, $horizon);

        return $time < \INF ? max($time, $this->pressedUntil[32 * $a->index + $b->index] ?? 0.0) : $time;
    }

    /** Of the pairs that meet at the instant of this ball's meeting, a ball of the pair that closes fastest. */
    private function fastestAt(Body $next): Body
    {
        $limit = $next->pairTime + $this->tolerances->sameInstant;
        $fastest = $next;
        $most = -\INF;
        foreach ($this->bodies as $body) {
            if ($body->pairTime <= $limit && null !== $body->partner) {
                $closing = $this->closing($body, $body->partner);
                if ($closing > $most) {
                    $most = $closing;
                    $fastest = $body;
                }
            }
        }

        return $fastest;
    }

    /** Speed of approach of two balls now, m/s. */
    private function closing(Body $a, Body $b): float
    {
        $ta = $this->now - $a->since;
        $tb = $this->now - $b->since;
        $dx = $b->x + $tb * ($b->vx + 0.5 * $tb * $b->ax) - $a->x - $ta * ($a->vx + 0.5 * $ta * $a->ax);
        $dy = $b->y + $tb * ($b->vy + 0.5 * $tb * $b->ay) - $a->y - $ta * ($a->vy + 0.5 * $ta * $a->ay);
        $vx = $a->vx + $ta * $a->ax - $b->vx - $tb * $b->ax;
        $vy = $a->vy + $ta * $a->ay - $b->vy - $tb * $b->ay;

        return ($dx * $vx + $dy * $vy) / sqrt($dx * $dx + $dy * $dy);
    }

    private function meet(Body $one): void
    {
        $other = $one->partner;
        \assert(null !== $other);
        [$a, $b] = $one->index < $other->index ? [$one, $other] : [$other, $one];
        $this->now = max($this->now, $one->pairTime);
        $a->advance($this->cloth, $this->now);
        $b->advance($this->cloth, $this->now);
        $dx = $b->x - $a->x;
        $dy = $b->y - $a->y;
        $distance = sqrt($dx * $dx + $dy * $dy);
        $nx = $dx / $distance;
        $ny = $dy / $distance;
        $dvx = $a->vx - $b->vx;
        $dvy = $a->vy - $b->vy;
        $approach = $dvx * $nx + $dvy * $ny;
        $t = $this->tolerances;
        $key = 32 * $a->index + $b->index;
        $pressed = ($this->pressedUntil[$key] ?? -1.0) >= $this->now - $t->gap;
        if ($approach <= 0.0) {
            unset($this->pressedUntil[$key]);
        } elseif ($approach < ($pressed ? $t->pressedApproach : $t->slowApproach)) {
            $half = 0.5 * $approach;
            $a->vx -= $half * $nx;
            $a->vy -= $half * $ny;
            $b->vx += $half * $nx;
            $b->vy += $half * $ny;
            $overlap = 2 * $this->radius - $distance;
            if ($overlap > 0.0 && $overlap < 1e-4) {
                $a->x -= 0.5 * $overlap * $nx;
                $a->y -= 0.5 * $overlap * $ny;
                $b->x += 0.5 * $overlap * $nx;
                $b->y += 0.5 * $overlap * $ny;
            }
            $this->pressedUntil[$key] = $this->now + $t->pressed;
        } else {
            unset($this->pressedUntil[$key]);
            $this->record(EventKind::Ball, $a, $b);
            [$jx, $jy, $wx, $wy, $wz] = $this->contact->impulse($nx, $ny, $dvx, $dvy, $a->wx + $b->wx, $a->wy + $b->wy, $a->wz + $b->wz);
            $a->vx += $jx;
            $a->vy += $jy;
            $b->vx -= $jx;
            $b->vy -= $jy;
            $a->wx += $wx;
            $a->wy += $wy;
            $a->wz += $wz;
            $b->wx += $wx;
            $b->wy += $wy;
            $b->wz += $wz;
        }
        $a->settle($this->cloth, $this->now);
        $b->settle($this->cloth, $this->now);
        $this->searchOwn($a);
        $this->searchOwn($b);
        $this->searchPairs($a);
        $this->searchPairs($b);
    }

    private function record(EventKind $kind, Body $b, ?Body $other = null, int $where = -1): void
    {
        $this->events[] = [$this->now, $kind, $b, $other, $where, $b->x, $b->y];
    }
}
