<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

use ZigLane\Core\Error\SimulationLimit;
use ZigLane\Core\Motion\BallContact;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Motion\Tolerances;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\TableProfile;

/**
 * The event-driven simulation. Between events every ball moves on a parabola; the next event is the earliest of each ball's own
 * (Body: its phase ends, it meets a cushion, it drops) and of the meetings. Meetings also finds when a ball meets one that lies
 * where it lay; here pairs of balls that have moved are looked at, and after an event only those that it changed or that had counted on
 * a changed one. Two balls that meet by themselves part at once; a group of three and more is handed to the compliant stage
 * (Cluster). Every ball keeps its own time base. A contact of two balls slower than `slowApproach` is plastic and makes no event, as
 * Body says of surfaces.
 *
 * This is the hot loop of the product: conditions instead of min and max, and no allocation in a search.
 *
 * @internal
 */
final class Engine
{
    // As in Body, whose constants would be looked up at run time.
    private const ROLLING = 1;
    private const PHASE_ENDS = 0;
    private const SURFACE = 1;
    private const DROPS = 5;

    private readonly Surfaces $surfaces;
    private readonly BallContact $contact;
    private readonly Meetings $meetings;
    private readonly Cluster $cluster;
    private readonly float $reach;
    private readonly float $gap;

    /** @var array<int, Body> all balls */
    private array $bodies = [];

    /** @var list<Body> those that have moved and are on the table: only they have events and predictions */
    private array $awake = [];

    /** @var list<Body> those that have moved, also those that have dropped since */
    private array $touched = [];

    /** @var list<array{float, EventKind, Body, Body|null, int, float, float}> time, kind, ball, other ball, surface or pocket, x, y */
    private array $events = [];

    /** @var float */
    private $now = 0.0;

    /** Shots that were run so far. */
    public int $runs = 0;

    /** @param bool $isOpen whether the cloth goes on for ever, without rails and pockets */
    public function __construct(TableProfile $table, BallSet $balls, private readonly Tolerances $tolerances, bool $isOpen = false)
    {
        $this->surfaces = new Surfaces($table, $balls);
        $this->contact = new BallContact($balls);
        $this->meetings = new Meetings(new Conditions($table, $balls, $this->surfaces, $tolerances, $isOpen));
        $this->cluster = new Cluster($table, $balls, $this->surfaces, $tolerances);
        $this->reach = $balls->diameter();
        $this->gap = $tolerances->gap;
    }

    /** A ball for a shot on this table; its index is its place in the list of all balls. */
    public function ball(int $index, float $x, float $y, bool $isTracked = true): Body
    {
        return $this->meetings->ball($index, $x, $y, $isTracked);
    }

    /**
     * Runs until every ball rests or has dropped, or, if so wished, until two balls meet.
     *
     * @param array<int, Body> $bodies       all balls; each one's index is its place in this list
     * @param list<Body>       $struck       those of them that begin to move, with their velocities and spins set
     * @param bool             $untilMeeting ends with the instant at which the first two balls meet, which is recorded but not played
     * @param int              $towards      a pocket's index: ends when the first ball that moves has turned away from it on the open table; -1 for none
     *
     * @return list<array{float, EventKind, Body, Body|null, int, float, float}> time, kind, ball, other ball, surface or pocket, x, y
     *
     * @throws SimulationLimit If the bound on steps is met
     */
    public function run(array $bodies, array $struck, bool $untilMeeting = false, int $towards = -1): array
    {
        ++$this->runs;
        $this->bodies = $bodies;
        $this->awake = $this->touched = $struck;
        $this->events = [];
        $this->now = 0.0;
        $this->meetings->start($bodies, $struck);
        foreach ($struck as $body) {
            $this->searchPairs($body);
        }
        $most = $this->tolerances->maxSteps;
        for ($step = 0;; ++$step) {
            $next = null;
            $time = \INF;
            $isPair = false;
            foreach ($this->awake as $body) {
                $own = $body->ownTime;
                $pair = $body->pairTime;
                if ($pair < $own) {
                    if ($pair < $time) {
                        $time = $pair;
                        $next = $body;
                        $isPair = true;
                    }
                } elseif ($own < $time) {
                    $time = $own;
                    $next = $body;
                    $isPair = false;
                }
            }
            if (null === $next) {
                break;
            }
            if ($step >= $most) {
                throw SimulationLimit::events($most, $this->now);
            }
            if ($isPair && $untilMeeting && null !== $next->partner) {
                $this->now = $next->pairTime;
                $this->record(EventKind::Ball, $next, $next->partner);
                break;
            }
            if ($isPair) {
                $this->meet(\count($this->awake) > 1 ? $this->fastestAt($next) : $next);
            } else {
                $this->happen($next);
                if ($towards >= 0 && $next->zone < 0 && $this->isTurnedFrom($next, $towards)) {
                    break;
                }
            }
        }

        return $this->cluster->wasUsed() ? self::inOrder($this->events) : $this->events;
    }

    /**
     * The balls that took part in the last run; the others are as they were.
     *
     * @return list<Body>
     */
    public function touched(): array
    {
        return $this->touched;
    }

    private function isTurnedFrom(Body $b, int $pocket): bool
    {
        $p = $this->surfaces->pockets[$pocket];

        return $b->vx * ($p[12] - $b->x) + $b->vy * ($p[13] - $b->y) < 0.0;
    }

    /** A ball that lay where it lay is met. */
    private function wake(Body $b): void
    {
        if ($this->meetings->wake($b)) {
            $this->awake[] = $b;
            $this->touched[] = $b;
        }
    }

    /**
     * A compliant stage writes its contacts down before what other balls did meanwhile.
     *
     * @param list<array{float, EventKind, Body, Body|null, int, float, float}> $events
     *
     * @return list<array{float, EventKind, Body, Body|null, int, float, float}>
     */
    private static function inOrder(array $events): array
    {
        usort($events, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return $events;
    }

    // ---- what a ball does by itself -------------------------------------------------------------------------------------

    /** @param Body $b */
    private function happen($b): void
    {
        $surface = $b->ownSurface;
        $kind = $b->happen();
        $this->now = $b->since;
        if (self::PHASE_ENDS === $kind) {
            if ($b->isTracked) {
                $this->recordPhase($b);
            }
        } elseif (self::SURFACE === $kind) {
            $this->recordSurface($b, $surface, $b->since, $b->x, $b->y);
        } elseif (self::DROPS === $kind) {
            $this->record(EventKind::Pocket, $b, null, $b->zone);
        }
        $this->searchPairs($b);
        if (self::DROPS === $kind) {
            // It takes part in nothing any more.
            $awake = [];
            foreach ($this->awake as $other) {
                if ($other !== $b) {
                    $awake[] = $other;
                }
            }
            $this->awake = $awake;
        }
    }

    /** A change of motion concerns only those who want the whole course of the shot. */
    private function recordPhase(Body $b): void
    {
        if (Body::ROLLING === $b->phase) {
            $this->record(EventKind::Roll, $b);
        } elseif (Body::AT_REST === $b->phase) {
            $this->record(EventKind::Rest, $b);
        }
    }

    // ---- contacts -------------------------------------------------------------------------------------------------------

    private function recordSurface(Body $b, int $surface, float $time, float $x, float $y): void
    {
        $this->events[] = $surface < 4
            ? [$time, EventKind::Cushion, $b, null, $surface, $x, $y]
            : [$time, EventKind::Jaw, $b, null, intdiv($surface, 4) - 1, $x, $y];
    }

    /**
     * After a change of this ball's motion: when it meets another that has moved, where that comes before what either expects,
     * and anew what those meet that counted on it. One ball is left out.
     *
     * @param Body $b
     */
    private function searchPairs($b, int $except = -1): void
    {
        if (\count($this->awake) < 2) {
            return;
        }
        $phase = $b->phase;
        $index = $b->index;
        $reach = $this->reach;
        $left = $b->left - $reach;
        $right = $b->right + $reach;
        $bottom = $b->bottom - $reach;
        $top = $b->top + $reach;
        foreach ($this->awake as $other) {
            $place = $other->index;
            if ($place === $index || $place === $except) {
                continue;
            }
            if (null !== $other->partner && $except < 0 && $other->partner->index === $index) {
                $this->meetings->searchAgain($other, $this->now + 0.0);
                $this->searchPairs($other, $index);
            }
            if ($other->left <= $right && $other->right >= $left && $other->bottom <= $top && $other->top >= $bottom && ($phase <= self::ROLLING || $other->phase <= self::ROLLING)) {
                $time = $this->meetings->meeting($b, $other, $this->now + 0.0);
                if ($time < $b->pairTime) {
                    $b->pairTime = $time;
                    $b->partner = $other;
                }
                if ($time < $other->pairTime) {
                    $other->pairTime = $time;
                    $other->partner = $b;
                }
            }
        }
    }

    /** Of the pairs that meet at the instant of this ball's meeting, a ball of the pair that closes fastest. */
    private function fastestAt(Body $next): Body
    {
        $limit = $next->pairTime + $this->tolerances->sameInstant;
        $this->now = $next->pairTime;
        $fastest = $next;
        $most = -\INF;
        foreach ($this->awake as $body) {
            if ($body->pairTime <= $limit && null !== $body->partner && $body !== $next && ($body !== $next->partner || $body->partner !== $next)) {
                if (-\INF === $most && null !== $next->partner) {
                    $most = $this->closing($next, $next->partner);
                }
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

        return ($dx * $vx + $dy * $vy) / \sqrt($dx * $dx + $dy * $dy);
    }

    private function meet(Body $one): void
    {
        $other = $one->partner;
        \assert(null !== $other);
        [$a, $b] = $one->index < $other->index ? [$one, $other] : [$other, $one];
        $this->now = max($one->pairTime, $a->since, $b->since);
        $this->wake($a);
        $this->wake($b);
        $now = $this->now;
        $a->advance($now);
        $b->advance($now);
        $dx = $b->x - $a->x;
        $dy = $b->y - $a->y;
        $distance = \sqrt($dx * $dx + $dy * $dy);
        $nx = $dx / $distance;
        $ny = $dy / $distance;
        $dvx = $a->vx - $b->vx;
        $dvy = $a->vy - $b->vy;
        $approach = $dvx * $nx + $dvy * $ny;
        $t = $this->tolerances;
        $pressed = $this->meetings->release($a, $b) >= $now - $this->gap;
        if ($approach < 0.0) {
            // Left each other while they were let alone: the pressure is over.
        } elseif ($approach < ($pressed ? $t->pressedApproach : $t->slowApproach)) {
            $half = 0.5 * $approach;
            $a->vx -= $half * $nx;
            $a->vy -= $half * $ny;
            $b->vx += $half * $nx;
            $b->vy += $half * $ny;
            $overlap = $this->reach - $distance;
            if ($overlap > 0.0 && $overlap < 1e-4) {
                $a->x -= 0.5 * $overlap * $nx;
                $a->y -= 0.5 * $overlap * $ny;
                $b->x += 0.5 * $overlap * $nx;
                $b->y += 0.5 * $overlap * $ny;
            }
            $this->meetings->press($a, $b, $now + $t->pressed);
        } else {
            if ($approach >= $t->clusterApproach) {
                $members = $this->cluster->around($this->bodies, $a, $b, $approach, $this->now);
                if (\count($members) > 2) {
                    $this->meetTogether($members);

                    return;
                }
            }
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
        $a->settle($now);
        $b->settle($now);
        $this->searchPairs($a);
        $this->searchPairs($b);
    }

    /** @param non-empty-list<Body> $members */
    private function meetTogether(array $members): void
    {
        $moved = $this->cluster->part($this->bodies, $members, $this->now);
        foreach ($this->cluster->contacts() as [$time, $a, $b, $surface, $x, $y]) {
            if (null !== $b) {
                $this->meetings->release($a, $b);
                $this->events[] = [$time, EventKind::Ball, $a, $b, -1, $x, $y];
            } else {
                $this->recordSurface($a, $surface, $time, $x, $y);
            }
        }
        foreach ($moved as $body) {
            $this->wake($body);
            $body->settle($body->since);
        }
        foreach ($moved as $body) {
            $this->searchPairs($body);
        }
    }

    private function record(EventKind $kind, Body $b, ?Body $other = null, int $where = -1): void
    {
        $this->events[] = [$this->now, $kind, $b, $other, $where, $b->x, $b->y];
    }
}
