<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

use ZigLane\Core\Motion\BallContact;
use ZigLane\Core\Motion\OutOfTime;
use ZigLane\Core\Motion\SimulationLimit;
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
    private const SURFACE = 1;
    private const DROPS = 2;

    private readonly Surfaces $surfaces;
    private readonly BallContact $contact;
    /** Whether the cue ball is as heavy as the others; and else what it and the ball that it meets take. */
    private readonly bool $isEven;
    private readonly float $byCueBall;
    private readonly float $fromCueBall;
    private readonly Meetings $meetings;
    private readonly Cluster $cluster;
    private readonly float $reach;
    private readonly float $gap;

    /** @var list<Body> all balls */
    private array $bodies = [];

    /** @var list<Body> those that have moved and are on the table: only they have events and predictions */
    private array $awake = [];

    /** @var list<Body> those that have moved, also those that have dropped since */
    private array $touched = [];

    /** @var list<int> what has happened (PackedEvent) */
    private array $events = [];

    /** @var list<float> when each was */
    private array $times = [];

    /** @var list<array{float, float}> and where its first ball was then, of balls whose paths are kept */
    private array $spots = [];

    /** @var float */
    private $now = 0.0;

    /** Shots that were run so far. */
    public int $runs = 0;
    /** @var (\Closure(): bool)|null asked now and then whether what is computed is still wanted; null: it is */
    public ?\Closure $isOver = null;

    /** @param bool $isOpen whether the cloth goes on for ever, without rails and pockets */
    public function __construct(TableProfile $table, BallSet $balls, private readonly Tolerances $tolerances, bool $isOpen = false)
    {
        $this->surfaces = new Surfaces($table, $balls);
        $this->contact = new BallContact($balls);
        $this->meetings = new Meetings(new Conditions($table, $balls, $this->surfaces, $tolerances, $isOpen));
        $this->cluster = new Cluster($table, $balls, $this->surfaces, $tolerances);
        $this->reach = $balls->diameter();
        $this->gap = $tolerances->gap;
        $this->isEven = 1.0 === $balls->cueBallWeight;
        $this->byCueBall = $balls->takenByCueBall();
        $this->fromCueBall = $balls->takenFromCueBall();
    }

    /**
     * Lays balls on this table.
     *
     * @param list<array{float, float}> $spots     metres
     * @param bool                      $isTracked whether their paths are kept
     * @param int                       $cue       which of them is the cue ball; -1 for none
     */
    public function layOut(array $spots, bool $isTracked = true, int $cue = -1): InitialState
    {
        return new InitialState($this->meetings, $spots, $isTracked, $cue);
    }

    /**
     * Runs until every ball rests or has dropped, or, if so wished, until two balls meet.
     *
     * @param list<Body> $struck       those of them that begin to move, with their velocities and spins set
     * @param bool       $untilMeeting ends with the instant at which the first two balls meet, which is recorded but not played
     * @param int        $towards      a pocket's index: ends when the first ball that moves has turned away from it on the open table; -1
     *                                 for none
     *
     * @return list<int> what happened, in order (PackedEvent)
     *
     * @throws SimulationLimit If the bound on steps is met
     */
    public function run(InitialState $start, array $struck, bool $untilMeeting = false, int $towards = -1): array
    {
        if (0 === (++$this->runs & 31) && null !== $this->isOver && ($this->isOver)()) {
            throw new OutOfTime();
        }
        $this->bodies = $start->bodies;
        $this->awake = $this->touched = $struck;
        $this->events = $this->times = $this->spots = [];
        $this->now = 0.0;
        $this->meetings->start($start, $struck);
        foreach ($struck as $body) {
            $this->searchPairs($body);
        }
        $most = $this->tolerances->maxSteps;
        // Ends: at the bound on steps, below.
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
                $this->recordMeeting($next, $next->partner, $this->now, $next->x, $next->y);
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

        if ($this->cluster->wasUsed()) {
            $this->sort();
        }

        return $this->events;
    }

    /** @return list<float> seconds, of the events of the last run */
    public function times(): array
    {
        return $this->times;
    }

    /** @return list<array{float, float}> metres, of the events of the last run, if the paths of its balls are kept */
    public function spots(): array
    {
        return $this->spots;
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

    /** @param Body $b */
    private function isTurnedFrom($b, int $pocket): bool
    {
        $p = $this->surfaces->pockets[$pocket];

        return $b->vx * ($p[Surfaces::MOUTH_X] - $b->x) + $b->vy * ($p[Surfaces::MOUTH_Y] - $b->y) < 0.0;
    }

    /**
     * A ball that lay where it lay is met.
     *
     * @param Body $b
     */
    private function wake($b): void
    {
        if ($this->meetings->wake($b)) {
            $this->awake[] = $b;
            $this->touched[] = $b;
        }
    }

    /** A compliant stage writes its contacts down before what other balls did meanwhile. */
    private function sort(): void
    {
        $order = $this->times;
        asort($order);
        $events = $times = $spots = [];
        foreach ($order as $i => $time) {
            $events[] = $this->events[$i];
            $times[] = $time;
            if (isset($this->spots[$i])) {
                $spots[] = $this->spots[$i];
            }
        }
        [$this->events, $this->times, $this->spots] = [$events, $times, $spots];
    }

    // ---- what a ball does by itself -------------------------------------------------------------------------------------

    /** @param Body $b */
    private function happen($b): void
    {
        $surface = $b->ownSurface;
        $kind = $b->happen();
        $this->now = $b->since;
        // By order: to be asked whether a number of another class is equal to one costs a call.
        if ($kind < self::SURFACE) {
            if ($b->isTracked) {
                $this->recordPhase($b);
            }
        } elseif ($kind < self::DROPS) {
            $this->recordSurface($b, $surface, $this->now, $b->x, $b->y);
        } elseif ($kind <= self::DROPS) {
            $this->record(PackedEvent::at(PackedEvent::POCKET, $b->index, $b->zone), $b, $this->now, $b->x, $b->y);
            $this->drop($b);

            return;
        }
        $this->searchPairs($b);
    }

    /**
     * The ball takes part in nothing any more; who counted on it looks again.
     *
     * @param Body $b
     */
    private function drop($b): void
    {
        $this->searchPairs($b);
        $awake = [];
        foreach ($this->awake as $other) {
            if ($other !== $b) {
                $awake[] = $other;
            }
        }
        $this->awake = $awake;
    }

    /** A change of motion concerns only those who want the whole course of the shot. */
    private function recordPhase(Body $b): void
    {
        if (Body::ROLLING === $b->phase) {
            $this->record(PackedEvent::alone(PackedEvent::ROLL, $b->index), $b, $this->now, $b->x, $b->y);
        } elseif (Body::AT_REST === $b->phase) {
            $this->record(PackedEvent::alone(PackedEvent::REST, $b->index), $b, $this->now, $b->x, $b->y);
        }
    }

    // ---- contacts -------------------------------------------------------------------------------------------------------

    /**
     * @param Body $a
     * @param Body $b
     */
    private function recordMeeting($a, $b, float $time, float $x, float $y): void
    {
        $this->record(PackedEvent::meeting($a->index, $b->index), $a, $time, $x, $y);
    }

    /** @param Body $b */
    private function recordSurface($b, int $surface, float $time, float $x, float $y): void
    {
        $this->record(
            $surface < Surfaces::FACING
                ? PackedEvent::at(PackedEvent::CUSHION, $b->index, $surface)
                : PackedEvent::at(PackedEvent::JAW, $b->index, Surfaces::pocketOf($surface)),
            $b,
            $time,
            $x,
            $y,
        );
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
            // Numbers of another class: === would cost a call.
            if ($place == $index || $place == $except) {
                continue;
            }
            if ($except < 0 && $other->partner === $b) {
                $this->meetings->searchAgain($other, $this->now + 0.0);
                $this->searchPairs($other, $index);
            }
            if (
                $other->left <= $right
                && $other->right >= $left
                && $other->bottom <= $top
                && $other->top >= $bottom
                && ($phase <= self::ROLLING || $other->phase <= self::ROLLING)
            ) {
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

    /**
     * Of the pairs that meet at the instant of this ball's meeting, a ball of the pair that closes fastest.
     *
     * @param Body $next
     *
     * @return Body
     */
    private function fastestAt($next)
    {
        $limit = $next->pairTime + $this->tolerances->sameInstant;
        $this->now = $next->pairTime;
        $fastest = $next;
        $most = -\INF;
        foreach ($this->awake as $body) {
            if (
                $body->pairTime <= $limit
                && null !== $body->partner
                && $body !== $next
                && ($body !== $next->partner || $body->partner !== $next)
            ) {
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

    /** @param Body $a */
    private function meet($a): void
    {
        $now = $a->pairTime;
        $b = $a->partner;
        \assert(null !== $b);
        if ($b->index < $a->index) {
            $b = $a;
            $a = $a->partner;
        }
        if ($now < $a->since) {
            $now = $a->since;
        }
        if ($now < $b->since) {
            $now = $b->since;
        }
        $this->now = $now;
        $this->wake($a);
        $this->wake($b);
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
                $near = $this->cluster->near($approach);
                if ($this->isThirdNear($a, $b, $near + 0.001)) {
                    $members = $this->cluster->around($this->bodies, $a, $b, $near, $this->now);
                    if (\count($members) > 2) {
                        $this->meetTogether($members);

                        return;
                    }
                }
            }
            $this->recordMeeting($a, $b, $now, $a->x, $a->y);
            [$jx, $jy, $wx, $wy, $wz] = $this->contact->impulse($nx, $ny, $dvx, $dvy, $a->wx + $b->wx, $a->wy + $b->wy, $a->wz + $b->wz);
            if (!$this->isEven && ($a->isCue || $b->isCue)) {
                $this->unevenly($a, $b, [$jx, $jy, $wx, $wy, $wz]);
            } else {
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
        }
        $a->settle($now);
        $b->settle($now);
        $this->searchPairs($a);
        $this->searchPairs($b);
    }

    /**
     * The contact of a cue ball of another weight: what equal balls would take, each its part.
     *
     * @param Body                                     $a
     * @param Body                                     $b
     * @param array{float, float, float, float, float} $impulse of $a (BallContact)
     */
    private function unevenly($a, $b, array $impulse): void
    {
        foreach ([[$a, 1.0], [$b, -1.0]] as [$body, $sign]) {
            $share = $body->isCue ? $this->byCueBall : $this->fromCueBall;
            $body->vx += $sign * $share * $impulse[0];
            $body->vy += $sign * $share * $impulse[1];
            $body->wx += $share * $impulse[2];
            $body->wy += $share * $impulse[3];
            $body->wz += $share * $impulse[4];
        }
    }

    /**
     * A quick test whether a third ball may lie near either of two: most contacts have none.
     *
     * @param Body $a
     * @param Body $b
     */
    private function isThirdNear($a, $b, float $near): bool
    {
        $left = ($a->x < $b->x ? $a->x : $b->x) - $near;
        $right = ($a->x < $b->x ? $b->x : $a->x) + $near;
        $bottom = ($a->y < $b->y ? $a->y : $b->y) - $near;
        $top = ($a->y < $b->y ? $b->y : $a->y) + $near;
        if (\count($this->awake) > 2) {
            foreach ($this->awake as $other) {
                if (
                    $other !== $a
                    && $other !== $b
                    && $other->left <= $right
                    && $other->right >= $left
                    && $other->bottom <= $top
                    && $other->top >= $bottom
                ) {
                    return true;
                }
            }
        }

        return $this->meetings->isAnyStill($left, $right, $bottom, $top);
    }

    /** @param non-empty-list<Body> $members */
    private function meetTogether(array $members): void
    {
        $moved = $this->cluster->part($this->bodies, $members, $this->now);
        foreach ($this->cluster->contacts() as [$time, $a, $b, $surface, $x, $y]) {
            if (null !== $b) {
                $this->meetings->release($a, $b);
                $this->recordMeeting($a, $b, $time, $x, $y);
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

    /** @param Body $b */
    private function record(int $event, $b, float $time, float $x, float $y): void
    {
        $this->events[] = $event;
        $this->times[] = $time;
        if ($b->isTracked) {
            $this->spots[] = [$x, $y];
        }
    }
}
