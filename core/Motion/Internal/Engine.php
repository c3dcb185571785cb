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
 * changed, and those whose predicted partner changed, are searched again, and of their pairs only those whose paths until
 * then come near each other. Two balls that meet by themselves part at once; a group of three and more is handed to the
 * compliant stage (Cluster). Every ball keeps its own time base.
 *
 * Surfaces or balls that stay pressed together would meet endlessly at ever shorter intervals. A contact slower than
 * `slowApproach` is therefore plastic, makes no event, and is looked at again only after `pressed` seconds.
 *
 * This is the hot loop of the product: conditions instead of min and max, and no allocation in a search.
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
    private readonly Cluster $cluster;
    private readonly Cloth $cloth;
    private readonly float $radius;
    private readonly float $reach;
    private readonly float $gap;

    /** @var list<Body> all balls */
    private array $bodies = [];

    /** @var list<Body> those that have moved: only they have events and predictions */
    private array $awake = [];

    /** @var array<int, Body> those that lie where they lay, keyed by index */
    private array $still = [];

    /** @var list<array{float, EventKind, Body, Body|null, int, float, float}> time, kind, ball, other ball, surface or pocket, x, y */
    private array $events = [];

    /** @var array<int, float> until when a pair that is pressed together is left alone, keyed by both indices */
    private array $pressedUntil = [];

    private float $now = 0.0;

    /** Shots that were run so far. */
    public int $runs = 0;

    public function __construct(TableProfile $table, BallSet $balls, private readonly Tolerances $tolerances)
    {
        $this->surfaces = new Surfaces($table, $balls);
        $this->contact = new BallContact($balls);
        $this->cushion = new CushionLaw($table, $balls);
        $this->cloth = Cloth::of($table, $balls, $tolerances);
        $this->cluster = new Cluster($balls, $this->cloth, $this->surfaces, $this->cushion, $tolerances);
        $this->radius = $balls->radius;
        $this->reach = $balls->diameter();
        $this->gap = $tolerances->gap;
    }

    /**
     * Runs until every ball rests or has dropped, or, if so wished, until two balls meet.
     *
     * @param list<Body> $bodies       with their velocities set; their order is that of the layout
     * @param bool       $untilMeeting ends with the instant at which the first two balls meet, which is recorded but not played
     * @param int        $towards      a pocket's index: ends when the first ball that moves has turned away from it on the open table; -1 for none
     *
     * @return list<array{float, EventKind, Body, Body|null, int, float, float}> time, kind, ball, other ball, surface or pocket, x, y
     *
     * @throws SimulationLimit If the bound on steps is met
     */
    public function run(array $bodies, bool $untilMeeting = false, int $towards = -1): array
    {
        ++$this->runs;
        $this->bodies = $bodies;
        $this->awake = $this->still = $this->events = $this->pressedUntil = [];
        $this->now = 0.0;
        foreach ($bodies as $body) {
            if (0.0 === $body->vx && 0.0 === $body->vy && 0.0 === $body->wx && 0.0 === $body->wy && 0.0 === $body->wz) {
                $body->lie();
                $this->still[$body->index] = $body;
            } else {
                $body->zone = $this->zoneAt($body);
                $body->settle($this->cloth, 0.0);
                $this->awake[] = $body;
            }
        }
        foreach ($this->awake as $body) {
            $this->searchOwn($body);
        }
        foreach ($this->awake as $body) {
            $this->searchPairs($body);
        }
        $most = $this->tolerances->maxSteps;
        for ($step = 0;; ++$step) {
            $next = null;
            $time = \INF;
            $isPair = false;
            foreach ($this->awake as $body) {
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
            if ($step >= $most) {
                throw SimulationLimit::events($most, $this->now);
            }
            if ($isPair && $untilMeeting && null !== $next->partner) {
                $this->now = $next->pairTime;
                $this->record(EventKind::Ball, $next, $next->partner);
                break;
            }
            if ($isPair) {
                $this->meet($this->fastestAt($next));
            } else {
                $this->happen($next);
                if ($towards >= 0 && $next->zone < 0 && $this->isTurnedFrom($next, $towards)) {
                    break;
                }
            }
        }

        return $this->cluster->wasUsed() ? self::inOrder($this->events) : $this->events;
    }

    /** The pocket whose mouth a ball lies in, as an index; -1 on the open table. */
    private function zoneAt(Body $b): int
    {
        $s = $this->surfaces;
        $least = $this->radius - 1e-4;

        return $b->x < $least || $b->y < $least || $s->length - $b->x < $least || $s->width - $b->y < $least ? $s->nearestPocket($b->x, $b->y) : -1;
    }

    private function isTurnedFrom(Body $b, int $pocket): bool
    {
        $p = $this->surfaces->pockets[$pocket];

        return $b->vx * ($p[12] - $b->x) + $b->vy * ($p[13] - $b->y) < 0.0;
    }

    /** A ball that lay where it lay is met. */
    private function wake(Body $b): void
    {
        if (isset($this->still[$b->index])) {
            unset($this->still[$b->index]);
            $b->zone = $this->zoneAt($b);
            $this->awake[] = $b;
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

    private function searchOwn(Body $b): void
    {
        $b->ownTime = $b->phaseEnds;
        $b->ownKind = self::PHASE_ENDS;
        $b->ownSurface = -1;
        if (Body::POCKETED === $b->phase) {
            return;
        }
        $b->sweep($b->phaseEnds - $b->since);
        if ($b->zone >= 0) {
            $this->searchZone($b);
        } elseif ($b->phase <= Body::ROLLING) {
            $s = $this->surfaces;
            $radius = $this->radius;
            if ($b->left <= $radius) {
                $this->searchRail($b, 0, $b->x - $radius, $b->vx, $b->ax);
            }
            if ($b->right >= $s->length - $radius) {
                $this->searchRail($b, 1, $s->length - $radius - $b->x, -$b->vx, -$b->ax);
            }
            if ($b->bottom <= $radius) {
                $this->searchRail($b, 2, $b->y - $radius, $b->vy, $b->ay);
            }
            if ($b->top >= $s->width - $radius) {
                $this->searchRail($b, 3, $s->width - $radius - $b->y, -$b->vy, -$b->ay);
            }
        }
        if ($b->ownTime < $b->phaseEnds) {
            $b->sweep($b->ownTime - $b->since);
        }
    }

    /** On the open table: when the ball reaches a nose line, on its nose or in a mouth. */
    private function searchRail(Body $b, int $rail, float $gap, float $v, float $a): void
    {
        $t = Approach::crossing($gap, $v, $a, $this->gap);
        if ($b->since + $t >= $b->ownTime) {
            return;
        }
        $along = $rail < 2 ? $b->y + $t * ($b->vy + 0.5 * $t * $b->ay) : $b->x + $t * ($b->vx + 0.5 * $t * $b->ax);
        if ($this->surfaces->isOnNose($rail, $along)) {
            $this->propose($b, $t, self::SURFACE, $rail);
        } else {
            $this->propose($b, $t, self::ENTERS_ZONE, -1);
        }
    }

    /** In the surroundings of a pocket: the rails beside it, its noses, facings and hole, and the way back to the open table. */
    private function searchZone(Body $b): void
    {
        if ($b->drops < \INF) {
            $this->propose($b, $b->drops - $b->since, self::DROPS, -1);
        }
        if ($b->phase > Body::ROLLING) {
            return;
        }
        $s = $this->surfaces;
        $tolerance = $this->gap;
        $zone = $b->zone;
        [$nax, $nay, $nbx, $nby, $fax, $fay, $fbx, $fby, $max, $may, $mbx, $mby, $mx, $my, $axisX, $axisY, $hx, $hy, $holeRadius, $before] = $s->pockets[$zone];
        $x = $b->x;
        $y = $b->y;
        $vx = $b->vx;
        $vy = $b->vy;
        $ax = $b->ax;
        $ay = $b->ay;
        $isSide = 1 === $zone % 3;
        $this->searchRailBeside($b, $zone < 3 ? 2 : 3);
        if (!$isSide) {
            $this->searchRailBeside($b, 0 === $zone % 3 ? 0 : 1);
        }
        $this->searchJaw($b, $nax, $nay, $fax, $fay, $max, $may, 4 + 4 * $zone);
        $this->searchJaw($b, $nbx, $nby, $fbx, $fby, $mbx, $mby, 5 + 4 * $zone);
        // The hole: into its circle, out again, or past its middle.
        $middle = ($hx - $x) * $axisX + ($hy - $y) * $axisY;
        $this->propose($b, Approach::crossing($middle, -$vx * $axisX - $vy * $axisY, -$ax * $axisX - $ay * $axisY, $tolerance), self::DROPS, -1);
        $horizon = $b->ownTime - $b->since;
        if ($b->drops < \INF) {
            $this->propose($b, Approach::leaving($x - $hx, $y - $hy, $vx, $vy, $ax, $ay, $holeRadius + 1e-9, $horizon), self::LEAVES_HOLE, -1);
        } else {
            $this->propose($b, Approach::within($x - $hx, $y - $hy, $vx, $vy, $ax, $ay, $holeRadius, $tolerance, $horizon), self::ENTERS_HOLE, -1);
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

    /** A nose point (nx, ny) and the facing that runs from it in the direction (fx, fy), with (px, py) square to it into the pocket. */
    private function searchJaw(Body $b, float $nx, float $ny, float $fx, float $fy, float $px, float $py, int $facing): void
    {
        $dx = $b->x - $nx;
        $dy = $b->y - $ny;
        $vx = $b->vx;
        $vy = $b->vy;
        $ax = $b->ax;
        $ay = $b->ay;
        $gap = $dx * $px + $dy * $py - $this->radius;
        if ($gap > -1e-4) {
            $t = Approach::crossing($gap, $vx * $px + $vy * $py, $ax * $px + $ay * $py, $this->gap);
            if ($b->since + $t < $b->ownTime && ($dx + $t * ($vx + 0.5 * $t * $ax)) * $fx + ($dy + $t * ($vy + 0.5 * $t * $ay)) * $fy >= 0.0) {
                $this->propose($b, $t, self::SURFACE, $facing);
            }
        }
        $t = Approach::within($dx, $dy, $vx, $vy, $ax, $ay, $this->radius, $this->gap, $b->ownTime - $b->since);
        if ($t < \INF) {
            $this->propose($b, $t, self::SURFACE, $facing + 2);
        }
    }

    private function searchRailBeside(Body $b, int $rail): void
    {
        $s = $this->surfaces;
        $radius = $this->radius;
        switch ($rail) {
            case 0:
                $gap = $b->x - $radius;
                $t = Approach::crossing($gap, $b->vx, $b->ax, $this->gap);
                break;
            case 1:
                $gap = $s->length - $radius - $b->x;
                $t = Approach::crossing($gap, -$b->vx, -$b->ax, $this->gap);
                break;
            case 2:
                $gap = $b->y - $radius;
                $t = Approach::crossing($gap, $b->vy, $b->ay, $this->gap);
                break;
            default:
                $gap = $s->width - $radius - $b->y;
                $t = Approach::crossing($gap, -$b->vy, -$b->ay, $this->gap);
        }
        // A ball that is already between the noses meets these at their points.
        if ($gap >= -1e-4 && $b->since + $t < $b->ownTime) {
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
        $this->now = $b->ownTime > $b->since ? $b->ownTime : $b->since;
        $b->advance($this->cloth, $this->now);
        switch ($b->ownKind) {
            case self::PHASE_ENDS:
                $b->endPhase($this->cloth, $this->now);
                if (Body::ROLLING === $b->phase) {
                    $this->record(EventKind::Roll, $b);
                } elseif (Body::AT_REST === $b->phase) {
                    $this->record(EventKind::Rest, $b);
                }
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
                $b->drop($this->now);
                break;
        }
        $this->searchOwn($b);
        $this->searchPairs($b);
    }

    // ---- contacts -------------------------------------------------------------------------------------------------------

    private function rebound(Body $b, int $surface): void
    {
        [$nx, $ny, $gap] = $this->surfaces->towards($b->x, $b->y, $surface);
        $approach = $b->vx * $nx + $b->vy * $ny;
        // An approach of nought is one that friction is just turning towards the surface: pressed, or it would be met for ever at once.
        if ($approach < 0.0) {
            // Left by itself while it was let alone; the pressure is over.
            unset($b->pressedUntil[$surface]);
            $b->settle($this->cloth, $this->now);

            return;
        }
        $t = $this->tolerances;
        $pressed = ($b->pressedUntil[$surface] ?? -1.0) >= $this->now - $this->gap;
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
        $b->rebound($this->cushion, $nx, $ny, $approach);
        $this->recordSurface($b, $surface, $this->now, $b->x, $b->y);
        $b->settle($this->cloth, $this->now);
    }

    private function recordSurface(Body $b, int $surface, float $time, float $x, float $y): void
    {
        $this->events[] = $surface < 4
            ? [$time, EventKind::Cushion, $b, null, $surface, $x, $y]
            : [$time, EventKind::Jaw, $b, null, intdiv($surface, 4) - 1, $x, $y];
    }

    /** Predicts when this ball meets each of the others, and mends the prediction of balls that counted on it. */
    private function searchPairs(Body $b): void
    {
        $b->pairTime = \INF;
        $b->partner = null;
        $index = $b->index;
        foreach ($this->awake as $other) {
            if ($other->index === $index) {
                continue;
            }
            if ($other->partner === $b) {
                $other->pairTime = \INF;
                $other->partner = null;
                $this->searchFor($other, $index);
            }
        }
        $this->searchFor($b, -1);
    }

    /** This ball's earliest meeting, with the other's prediction where it comes before what that expects; one ball left out. */
    private function searchFor(Body $b, int $except): void
    {
        if (Body::POCKETED === $b->phase) {
            return;
        }
        $moves = $b->phase <= Body::ROLLING;
        $index = $b->index;
        $reach = $this->reach;
        $left = $b->left - $reach;
        $right = $b->right + $reach;
        $bottom = $b->bottom - $reach;
        $top = $b->top + $reach;
        foreach ($this->awake as $other) {
            if (($moves || $other->phase <= Body::ROLLING) && $other->left <= $right && $other->right >= $left && $other->bottom <= $top && $other->top >= $bottom && $other->index !== $index && $other->index !== $except) {
                $time = $this->meeting($b, $other);
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
        if (!$moves) {
            return;
        }
        foreach ($this->still as $other) {
            $x = $other->x;
            if ($x <= $right && $x >= $left) {
                $y = $other->y;
                if ($y <= $top && $y >= $bottom) {
                    $time = $this->meeting($b, $other);
                    if ($time < $b->pairTime) {
                        $b->pairTime = $time;
                        $b->partner = $other;
                    }
                }
            }
        }
    }

    /**
     * When two balls meet, at the latest until either's own next event changes its path. Three cheap tests send most pairs away: they recede for good; the least projection on the line of
     * centres is too long; the chord of their relative path, widened by its sagitta, passes too far.
     */
    private function meeting(Body $a, Body $b): float
    {
        if (Body::POCKETED === $a->phase || Body::POCKETED === $b->phase) {
            return \INF;
        }
        if ($b->index < $a->index) {
            $other = $a;
            $a = $b;
            $b = $other;
        }
        $now = $this->now;
        if ($a->since > $now) {
            $now = $a->since;
        }
        if ($b->since > $now) {
            $now = $b->since;
        }
        $until = $a->ownTime < $b->ownTime ? $a->ownTime : $b->ownTime;
        $horizon = $until - $now;
        if ($horizon < 0.0) {
            return \INF;
        }
        $ta = $now - $a->since;
        $tb = $now - $b->since;
        // A ball that does not move has neither velocity nor acceleration.
        $dx = $b->x + $tb * ($b->vx + 0.5 * $tb * $b->ax) - $a->x - $ta * ($a->vx + 0.5 * $ta * $a->ax);
        $dy = $b->y + $tb * ($b->vy + 0.5 * $tb * $b->ay) - $a->y - $ta * ($a->vy + 0.5 * $ta * $a->ay);
        $vx = $b->vx + $tb * $b->ax - $a->vx - $ta * $a->ax;
        $vy = $b->vy + $tb * $b->ay - $a->vy - $ta * $a->ay;
        $ax = $b->ax - $a->ax;
        $ay = $b->ay - $a->ay;
        $rate = $dx * $vx + $dy * $vy;
        $pull = $dx * $ax + $dy * $ay;
        if ($rate >= 0.0 && $pull >= 0.0) {
            return \INF;
        }
        $square = $dx * $dx + $dy * $dy;
        $t = $pull > 0.0 && -$rate < $horizon * $pull ? -$rate / $pull : $horizon;
        $rest = $square + $t * ($rate + 0.5 * $t * $pull);
        if ($rest > 0.0 && $rest * $rest > $square * $this->reach * $this->reach * 1.000001) {
            return \INF;
        }
        $ex = $horizon * ($vx + 0.5 * $horizon * $ax);
        $ey = $horizon * ($vy + 0.5 * $horizon * $ay);
        $chord = $ex * $ex + $ey * $ey;
        $share = -($dx * $ex + $dy * $ey);
        if ($share > 0.0) {
            $share = $share < $chord ? $share / $chord : 1.0;
            $ex = $dx + $share * $ex;
            $ey = $dy + $share * $ey;
            $wide = $this->reach + 0.125 * $horizon * $horizon * \sqrt($ax * $ax + $ay * $ay) + 1e-9;
            if ($ex * $ex + $ey * $ey > $wide * $wide) {
                return \INF;
            }
        }
        $time = $now + Approach::within($dx, $dy, $vx, $vy, $ax, $ay, $this->reach, $this->gap, $horizon);
        if ($time < \INF && [] !== $this->pressedUntil) {
            $pressed = $this->pressedUntil[32 * $a->index + $b->index] ?? 0.0;

            return $time > $pressed ? $time : $pressed;
        }

        return $time;
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
        $a->advance($this->cloth, $this->now);
        $b->advance($this->cloth, $this->now);
        $dx = $b->x - $a->x;
        $dy = $b->y - $a->y;
        $distance = \sqrt($dx * $dx + $dy * $dy);
        $nx = $dx / $distance;
        $ny = $dy / $distance;
        $dvx = $a->vx - $b->vx;
        $dvy = $a->vy - $b->vy;
        $approach = $dvx * $nx + $dvy * $ny;
        $t = $this->tolerances;
        $key = 32 * $a->index + $b->index;
        $pressed = ($this->pressedUntil[$key] ?? -1.0) >= $this->now - $this->gap;
        if ($approach < 0.0) {
            unset($this->pressedUntil[$key]);
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
            $this->pressedUntil[$key] = $this->now + $t->pressed;
        } else {
            unset($this->pressedUntil[$key]);
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
        $a->settle($this->cloth, $this->now);
        $b->settle($this->cloth, $this->now);
        $this->searchOwn($a);
        $this->searchOwn($b);
        $this->searchPairs($a);
        $this->searchPairs($b);
    }

    /** @param non-empty-list<Body> $members */
    private function meetTogether(array $members): void
    {
        $moved = $this->cluster->part($this->bodies, $members, $this->now);
        foreach ($this->cluster->contacts() as [$time, $a, $b, $surface, $x, $y]) {
            if (null !== $b) {
                unset($this->pressedUntil[32 * $a->index + $b->index]);
                $this->events[] = [$time, EventKind::Ball, $a, $b, -1, $x, $y];
            } else {
                $this->recordSurface($a, $surface, $time, $x, $y);
            }
        }
        foreach ($moved as $body) {
            $this->wake($body);
            $body->settle($this->cloth, $body->since);
            $this->searchOwn($body);
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
