<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

use ZigLane\Core\Motion\CushionLaw;
use ZigLane\Core\Motion\Tolerances;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\TableProfile;

/**
 * What a ball does by itself: it slides, rolls, turns on its spot and stops; it meets rails, jaws and noses; it comes into the
 * surroundings of a pocket and drops. Each ball's next event of its own is found here, and let happen.
 *
 * Surfaces that stay pressed together would meet endlessly at ever shorter intervals: a contact slower than `slowApproach` is
 * plastic, makes no event, and is looked at again only after `pressed` seconds.
 *
 * The hottest code of the product. PHP's compiler keeps a number in a register only where it knows its type: so the state of a
 * ball is handed on as arguments of type float, is computed with in local variables and written down once at the end; what is given
 * to methods of other classes is an expression and no variable (it might be taken by reference); balls as arguments have
 * their class in the comment only, because it would be looked up in every call.
 *
 * @internal
 */
final class BallMotion
{
    public const PHASE_ENDS = 0;
    public const SURFACE = 1;
    public const LEAVES_ZONE = 2;
    public const ENTERS_HOLE = 3;
    public const LEAVES_HOLE = 4;
    public const DROPS = 5;
    /** A contact with a surface that was none, or that made no event. */
    public const PRESSED = 6;
    /** No event: the ball is only moved to a later time. */
    private const ADVANCED = 7;

    // As in Body, whose constants would be looked up at run time.
    private const SLIDING = 0;
    private const ROLLING = 1;
    private const SPINNING = 2;
    private const AT_REST = 3;
    private const POCKETED = 4;

    /** Time inside the hole's circle after which a ball has dropped, seconds (physics of the table, section 6). */
    private const DROP_TIME = 0.040;

    private readonly CushionLaw $cushion;
    private readonly float $radius;
    private readonly float $perRadius;
    /** Angular acceleration of a sliding ball over the acceleration of its centre. */
    private readonly float $turn;
    private readonly float $slideRate;
    private readonly float $rollRate;
    private readonly float $spinDecay;
    /** How long a slip of 1 m/s takes to end, and a rolling ball of 1 m/s to stop. */
    private readonly float $slideTime;
    private readonly float $rollTime;
    private readonly float $slipSquare;
    private readonly float $stillSquare;
    private readonly float $leastSpin;
    private readonly float $gap;
    /** Where a ball's centre is when it touches each rail: -INF and INF if there are none. */
    private readonly float $head;
    private readonly float $foot;
    private readonly float $right;
    private readonly float $left;

    private readonly float $reach;

    /** @var array<int, Body> all balls */
    private array $bodies = [];

    /** @var array<int, float> where those lie that lie where they lay, along the table, keyed by index */
    private array $stillX = [];

    /** @var array<int, float> and across it */
    private array $stillY = [];

    /** @var array<int, float> until when a pair that is pressed together is left alone, keyed by both indices */
    private array $pressedUntil = [];

    /** @param bool $isOpen whether the cloth goes on for ever, without rails and pockets */
    public function __construct(
        TableProfile $table,
        BallSet $balls,
        private readonly Surfaces $surfaces,
        private readonly Tolerances $tolerances,
        bool $isOpen = false,
    ) {
        $this->cushion = new CushionLaw($table, $balls);
        $this->radius = $balls->radius;
        $this->perRadius = 1 / $balls->radius;
        $this->turn = 2.5 / $balls->radius;
        $this->slideRate = $table->slide * $table->gravity;
        $this->rollRate = $table->roll * $table->gravity;
        $this->spinDecay = $table->spinDecay;
        $this->slideTime = 2 / (7 * $this->slideRate);
        $this->rollTime = 1 / $this->rollRate;
        $this->slipSquare = $tolerances->slip ** 2;
        $this->stillSquare = $tolerances->still ** 2;
        $this->leastSpin = $tolerances->spin;
        $this->gap = $tolerances->gap;
        $this->reach = $balls->diameter();
        $this->head = $isOpen ? -\INF : $balls->radius;
        $this->foot = $isOpen ? \INF : $table->length - $balls->radius;
        $this->right = $isOpen ? -\INF : $balls->radius;
        $this->left = $isOpen ? \INF : $table->width() - $balls->radius;
    }

    /**
     * A shot begins: some balls move, the others lie where they lay.
     *
     * @param array<int, Body> $bodies each one's index is its place in this list
     * @param list<Body>       $struck with their velocities and spins set
     */
    public function start(array $bodies, array $struck): void
    {
        $this->bodies = $bodies;
        $this->pressedUntil = [];
        $x = $y = [];
        foreach ($bodies as $i => $body) {
            $x[$i] = $body->x;
            $y[$i] = $body->y;
        }
        foreach ($struck as $body) {
            unset($x[$body->index], $y[$body->index]);
        }
        $this->stillX = $x;
        $this->stillY = $y;
        foreach ($struck as $body) {
            $body->zone = $this->zoneAt($body->x, $body->y);
            $this->settle($body, 0.0);
        }
    }

    /**
     * A ball is met. Whether it lay where it lay until now.
     *
     * @param Body $b
     */
    public function wake($b): bool
    {
        $index = $b->index;
        if (!isset($this->stillX[$index])) {
            return false;
        }
        unset($this->stillX[$index], $this->stillY[$index]);
        $b->zone = $this->zoneAt($b->x, $b->y);

        return true;
    }

    private function zoneAt(float $x, float $y): int
    {
        return $x < $this->head - 1e-4 || $y < $this->right - 1e-4 || $x > $this->foot + 1e-4 || $y > $this->left + 1e-4 ? $this->surfaces->nearestPocket($x, $y) : -1;
    }

    /**
     * Moves a ball's state and its time base to a later time within its present phase.
     *
     * @param Body $b
     */
    public function advance($b, float $time): void
    {
        if ($time > $b->since) {
            $this->play($b, self::ADVANCED, $b->phase, $b->zone, $time, $b->since, $b->drops, $b->x, $b->y, $b->vx, $b->vy, $b->ax, $b->ay, $b->wx, $b->wy, $b->wz);
        }
    }

    /**
     * After a change of velocity or spin: finds the phase, with it the accelerations, and the ball's next own event.
     *
     * @param Body $b
     */
    public function settle($b, float $now): void
    {
        $this->begin($b, $b->zone, $now, $b->drops, $b->x, $b->y, $b->vx, $b->vy, $b->wx, $b->wy, $b->wz);
    }

    /**
     * A new piece of path begins: its phase and accelerations, the ball's next own event, and its meeting with one that lies where it lay.
     *
     * @param Body $b
     */
    private function begin($b, int $zone, float $now, float $drops, float $x, float $y, float $vx, float $vy, float $wx, float $wy, float $wz): void
    {
        $ux = $vx - $this->radius * $wy;
        $uy = $vy + $this->radius * $wx;
        $square = $ux * $ux + $uy * $uy;
        $ax = $ay = 0.0;
        if ($square > $this->slipSquare) {
            $phase = self::SLIDING;
            $size = \sqrt($square);
            $ends = $now + $size * $this->slideTime;
            $size = $this->slideRate / $size;
            $ax = -$size * $ux;
            $ay = -$size * $uy;
        } else {
            // What little slip is left goes as sliding would have ended it, so that no energy is gained.
            $vx -= 2 / 7 * $ux;
            $vy -= 2 / 7 * $uy;
            $square = $vx * $vx + $vy * $vy;
            if ($square > $this->stillSquare) {
                $phase = self::ROLLING;
                $wx = -$vy * $this->perRadius;
                $wy = $vx * $this->perRadius;
                $size = \sqrt($square);
                $ends = $now + $size * $this->rollTime;
                $size = $this->rollRate / $size;
                $ax = -$size * $vx;
                $ay = -$size * $vy;
            } else {
                $vx = $vy = $wx = $wy = 0.0;
                if ($wz > $this->leastSpin || $wz < -$this->leastSpin) {
                    $phase = self::SPINNING;
                    // Where no path is kept the end of the spin is no event: a ball that is met before has as much left as it would have.
                    $ends = $b->isTracked ? $now + ($wz > 0.0 ? $wz : -$wz) / $this->spinDecay : \INF;
                } else {
                    $wz = 0.0;
                    $phase = self::AT_REST;
                    $ends = \INF;
                }
            }
        }
        if ($phase < self::AT_REST) {
            $b->hasMoved = true;
        }
        $b->since = $now;
        $b->phase = $phase;
        $b->x = $x;
        $b->y = $y;
        $b->vx = $vx;
        $b->vy = $vy;
        $b->ax = $ax;
        $b->ay = $ay;
        $b->wx = $wx;
        $b->wy = $wy;
        $b->wz = $wz;
        if ($b->isTracked) {
            $b->keep();
        }
        if ($phase > self::ROLLING) {
            $b->ownTime = $drops < $ends ? $drops : $ends;
            $b->ownKind = $drops < $ends ? self::DROPS : self::PHASE_ENDS;
            $b->ownSurface = -1;
            $b->left = $b->right = $x;
            $b->bottom = $b->top = $y;
            $b->pairTime = \INF;
            $b->partner = null;

            return;
        }
        // The box that the ball stays in until its phase ends; on the open table, where that is past a rail's nose line, when the ball is there, and
        // what then: it meets the nose, or comes in between the noses of a pocket.
        $isFound = $zone >= 0;
        $time = $isFound ? $this->searchZone($b, $zone, $now, $ends, $drops, $x, $y, $vx, $vy, $ax, $ay) : $ends;
        while (true) {
            // Chord and sagitta of the parabola along each axis.
            $seconds = $time - $now;
            $left = $x;
            $right = $x + $seconds * ($vx + 0.5 * $seconds * $ax);
            if ($right < $left) {
                $left = $right;
                $right = $x;
            }
            $bottom = $y;
            $top = $y + $seconds * ($vy + 0.5 * $seconds * $ay);
            if ($top < $bottom) {
                $bottom = $top;
                $top = $y;
            }
            $bend = 0.125 * $seconds * $seconds;
            $size = $ax < 0.0 ? -$bend * $ax : $bend * $ax;
            $left -= $size;
            $right += $size;
            $size = $ay < 0.0 ? -$bend * $ay : $bend * $ay;
            $bottom -= $size;
            $top += $size;
            if ($isFound) {
                break;
            }
            $surface = -1;
            if ($left <= $this->head) {
                $at = $this->reaches($b, 0, $now, $x - $this->head, $vx, $ax);
                if ($at < $time) {
                    $time = $at;
                    $surface = 0;
                }
            }
            if ($right >= $this->foot) {
                $at = $this->reaches($b, 1, $now, $this->foot - $x, -$vx, -$ax);
                if ($at < $time) {
                    $time = $at;
                    $surface = 1;
                }
            }
            if ($bottom <= $this->right) {
                $at = $this->reaches($b, 2, $now, $y - $this->right, $vy, $ay);
                if ($at < $time) {
                    $time = $at;
                    $surface = 2;
                }
            }
            if ($top >= $this->left) {
                $at = $this->reaches($b, 3, $now, $this->left - $y, -$vy, -$ay);
                if ($at < $time) {
                    $time = $at;
                    $surface = 3;
                }
            }
            $b->ownKind = $surface < 0 ? self::PHASE_ENDS : self::SURFACE;
            $b->ownSurface = $surface;
            if ($surface < 0) {
                break;
            }
            $seconds = $time - $now;
            $ex = $x + $seconds * ($vx + 0.5 * $seconds * $ax);
            $ey = $y + $seconds * ($vy + 0.5 * $seconds * $ay);
            $isFound = true;
            if (!$this->surfaces->isOnNose($surface + 0, $surface < 2 ? $ey + 0.0 : $ex + 0.0)) {
                $b->enters = $time;
                $zone = $this->surfaces->nearestPocket($ex + 0.0, $ey + 0.0);
                $b->zone = $zone;
                $time = $this->searchZone($b, $zone, $time, $ends, \INF, $ex, $ey, $vx + $seconds * $ax, $vy + $seconds * $ay, $ax, $ay);
            }
        }
        $b->ownTime = $time;
        $b->left = $left;
        $b->right = $right;
        $b->bottom = $bottom;
        $b->top = $top;
        $reach = $this->reach;
        $this->searchStill($b, $now, $time, $x, $y, $vx, $vy, $ax, $ay, $left - $reach, $right + $reach, $bottom - $reach, $top + $reach);
    }

    /**
     * Lets the ball's next own event happen, and finds the one after it.
     *
     * @param Body $b
     *
     * @return int which it was; SURFACE for a rebound, PRESSED for a contact that made none
     */
    public function happen($b): int
    {
        return $this->play($b, $b->ownKind, $b->phase, $b->zone, $b->ownTime, $b->since, $b->drops, $b->x, $b->y, $b->vx, $b->vy, $b->ax, $b->ay, $b->wx, $b->wy, $b->wz);
    }

    /** @param Body $b */
    private function play($b, int $kind, int $phase, int $zone, float $now, float $since, float $drops, float $x, float $y, float $vx, float $vy, float $ax, float $ay, float $wx, float $wy, float $wz): int
    {
        if ($now > $since) {
            $dt = $now - $since;
            if ($phase <= self::ROLLING) {
                $x += $dt * ($vx + 0.5 * $dt * $ax);
                $y += $dt * ($vy + 0.5 * $dt * $ay);
                $vx += $dt * $ax;
                $vy += $dt * $ay;
                if (self::ROLLING === $phase) {
                    $wx = -$vy * $this->perRadius;
                    $wy = $vx * $this->perRadius;
                } else {
                    $wx += $this->turn * $dt * $ay;
                    $wy -= $this->turn * $dt * $ax;
                }
            }
            $lost = $this->spinDecay * $dt;
            $wz = $wz > $lost ? $wz - $lost : ($wz < -$lost ? $wz + $lost : 0.0);
        } else {
            $now = $since;
        }
        if (self::PHASE_ENDS === $kind) {
            if (self::SLIDING === $phase) {
                $wx = -$vy * $this->perRadius;
                $wy = $vx * $this->perRadius;
            } elseif (self::ROLLING === $phase) {
                $vx = $vy = $wx = $wy = 0.0;
            } else {
                $wz = 0.0;
            }
            $this->begin($b, $zone, $now, $drops, $x, $y, $vx, $vy, $wx, $wy, $wz);

            return $kind;
        }
        if (self::SURFACE === $kind) {
            return $this->rebound($b, $b->ownSurface, $zone, $now, $drops, $x, $y, $vx, $vy, $wx, $wy, $wz);
        }
        if (self::DROPS === $kind) {
            $b->since = $now;
            $b->x = $x;
            $b->y = $y;
            $b->wx = $wx;
            $b->wy = $wy;
            $b->wz = $wz;
            $b->drop($now + 0.0);

            return $kind;
        }
        if (self::ADVANCED !== $kind) {
            if (self::LEAVES_ZONE === $kind) {
                $zone = -1;
                $b->zone = -1;
            }
            $drops = self::ENTERS_HOLE === $kind ? $now + self::DROP_TIME : \INF;
            $b->drops = $drops;
            $this->begin($b, $zone, $now, $drops, $x, $y, $vx, $vy, $wx, $wy, $wz);

            return $kind;
        }
        // What was seen ahead has not come yet: the surroundings of a pocket, its hole.
        if ($zone >= 0 && $now < $b->enters) {
            $b->zone = -1;
        }
        if ($now < $drops - self::DROP_TIME) {
            $b->drops = \INF;
        }
        $b->since = $now;
        $b->x = $x;
        $b->y = $y;
        $b->vx = $vx;
        $b->vy = $vy;
        $b->wx = $wx;
        $b->wy = $wy;
        $b->wz = $wz;

        return $kind;
    }

    /** @param Body $b */
    private function rebound($b, int $surface, int $zone, float $now, float $drops, float $x, float $y, float $vx, float $vy, float $wx, float $wy, float $wz): int
    {
        [$nx, $ny, $gap] = $this->surfaces->towards($x + 0.0, $y + 0.0, $surface + 0);
        $approach = $vx * $nx + $vy * $ny;
        // An approach of nought is one that friction is just turning towards the surface: pressed, or it would be met for ever at once.
        if ($approach < 0.0) {
            // Left by itself while it was let alone; the pressure is over.
            unset($b->pressedUntil[$surface]);
            $this->begin($b, $zone, $now, $drops, $x, $y, $vx, $vy, $wx, $wy, $wz);

            return self::PRESSED;
        }
        $t = $this->tolerances;
        $pressed = ($b->pressedUntil[$surface] ?? -1.0) >= $now - $this->gap;
        if ($approach < ($pressed ? $t->pressedApproach : $t->slowApproach)) {
            if ($gap < 0.0 && $gap > -1e-4) {
                $x += $gap * $nx;
                $y += $gap * $ny;
            }
            $b->pressedUntil[$surface] = $now + $t->pressed;
            $this->begin($b, $zone, $now, $drops, $x, $y, $vx - $approach * $nx, $vy - $approach * $ny, $wx, $wy, $wz);

            return self::PRESSED;
        }
        if (isset($b->pressedUntil[$surface])) {
            unset($b->pressedUntil[$surface]);
        }
        [$vx, $vy, $wx, $wy, $wz] = $this->cushion->reboundFrom($nx + 0.0, $ny + 0.0, $vx + 0.0, $vy + 0.0, $wx + 0.0, $wy + 0.0, $wz + 0.0);
        $this->begin($b, $zone, $now, $drops, $x, $y, $vx, $vy, $wx, $wy, $wz);

        return self::SURFACE;
    }

    /**
     * A ball's earliest meeting with one that lies where it lay, anew, when that which it counted on has come to nothing.
     *
     * @param Body $b
     */
    public function searchAgain($b, float $now): void
    {
        $b->pairTime = \INF;
        $b->partner = null;
        if ($b->phase <= self::ROLLING) {
            if ($now < $b->since) {
                $now = $b->since;
            }
            $t = $now - $b->since;
            $reach = $this->reach;
            $this->searchStill(
                $b, $now, $b->ownTime, $b->x + $t * ($b->vx + 0.5 * $t * $b->ax), $b->y + $t * ($b->vy + 0.5 * $t * $b->ay),
                $b->vx + $t * $b->ax, $b->vy + $t * $b->ay, $b->ax, $b->ay, $b->left - $reach, $b->right + $reach, $b->bottom - $reach, $b->top + $reach,
            );
        }
    }

    /** @param Body $b */
    private function searchStill($b, float $now, float $until, float $x, float $y, float $vx, float $vy, float $ax, float $ay, float $left, float $right, float $bottom, float $top): void
    {
        $earliest = \INF;
        $partner = -1;
        $stillY = $this->stillY;
        foreach ($this->stillX as $i => $sx) {
            if ($sx >= $left && $sx <= $right) {
                $sy = $stillY[$i];
                if ($sy >= $bottom && $sy <= $top) {
                    $time = $now + $this->closes($sx - $x, $sy - $y, -$vx, -$vy, -$ax, -$ay, $until - $now);
                    if ($time < $earliest) {
                        $time = $this->notPressedPair($b->index, $i, $time);
                        if ($time < $earliest) {
                            $earliest = $time;
                            $partner = $i;
                        }
                    }
                }
            }
        }
        $b->pairTime = $earliest;
        $b->partner = $partner < 0 ? null : $this->bodies[$partner];
    }

    /**
     * When a gap has closed to a surface, or until when that is let alone.
     *
     * @param Body $b
     */
    private function reaches($b, int $surface, float $since, float $gap, float $v, float $a): float
    {
        return $this->notPressed($b, $surface, $since + Approach::crossing($gap, $v, $a, 0.0 + $this->gap));
    }

    /**
     * The same of a rail beside a pocket, before a time and on its nose; INF if not so. $along is the place along the rail, with its
     * velocity and acceleration.
     *
     * @param Body $b
     */
    private function reachesNose($b, int $rail, float $since, float $before, float $gap, float $v, float $a, float $along, float $vAlong, float $aAlong): float
    {
        if ($gap < -1e-4) {
            return \INF;
        }
        $t = Approach::crossing($gap + 0.0, $v, $a, 0.0 + $this->gap);

        return $since + $t < $before && $this->surfaces->isOnNose($rail + 0, $along + $t * ($vAlong + 0.5 * $t * $aAlong)) ? $this->notPressed($b, $rail, $since + $t) : \INF;
    }

    /**
     * The time of a contact, or that until which the surface is let alone.
     *
     * @param Body $b
     */
    private function notPressed($b, int $surface, float $time): float
    {
        if (isset($b->pressedUntil[$surface])) {
            $until = (float) $b->pressedUntil[$surface];
            if ($until > $time) {
                return $until;
            }
        }

        return $time;
    }

    /**
     * In the surroundings of a pocket: the rails beside it, its noses, facings and hole, and the way back to the open table. Of a moving ball that
     * is there since then, or will be: its fall is seen ahead too, so neither coming there nor coming to the hole is an event. Writes down what
     * comes first.
     *
     * @param Body $b
     *
     * @return float when
     */
    private function searchZone($b, int $zone, float $since, float $phaseEnds, float $drops, float $x, float $y, float $vx, float $vy, float $ax, float $ay): float
    {
        $time = $phaseEnds;
        $kind = self::PHASE_ENDS;
        $surface = -1;
        if ($drops < $time) {
            $time = $drops;
            $kind = self::DROPS;
        }
        $pocket = $this->surfaces->pockets[$zone];
        $isSide = 1 === $zone % 3;
        // The rails beside it. A ball that is already between the noses meets these at their points.
        $side = $zone < 3 ? 1.0 : -1.0;
        $rail = $zone < 3 ? 2 : 3;
        $at = $this->reachesNose($b, $rail, $since, $time, $zone < 3 ? $y - $this->right : $this->left - $y, $side * $vy, $side * $ay, $x, $vx, $ax);
        if ($at < $time) {
            $time = $at;
            $kind = self::SURFACE;
            $surface = $rail;
        }
        if (!$isSide) {
            $side = 0 === $zone % 3 ? 1.0 : -1.0;
            $rail = 0 === $zone % 3 ? 0 : 1;
            $at = $this->reachesNose($b, $rail, $since, $time, 0 === $zone % 3 ? $x - $this->head : $this->foot - $x, $side * $vx, $side * $ax, $y, $vy, $ay);
            if ($at < $time) {
                $time = $at;
                $kind = self::SURFACE;
                $surface = $rail;
            }
        }
        // Its two sides: a nose point, and the facing that runs from it into the pocket, with the direction square to that.
        for ($jaw = 0; $jaw < 2; ++$jaw) {
            $dx = $x - $pocket[2 * $jaw];
            $dy = $y - $pocket[2 * $jaw + 1];
            $px = $pocket[8 + 2 * $jaw];
            $py = $pocket[9 + 2 * $jaw];
            $gap = $dx * $px + $dy * $py - $this->radius;
            if ($gap > -1e-4) {
                $t = Approach::crossing($gap + 0.0, $vx * $px + $vy * $py, $ax * $px + $ay * $py, 0.0 + $this->gap);
                $at = $since + $t;
                if ($at < $time && ($dx + $t * ($vx + 0.5 * $t * $ax)) * $pocket[4 + 2 * $jaw] + ($dy + $t * ($vy + 0.5 * $t * $ay)) * $pocket[5 + 2 * $jaw] >= 0.0) {
                    $at = $this->notPressed($b, 4 + 4 * $zone + $jaw, $at);
                    if ($at < $time) {
                        $time = $at;
                        $kind = self::SURFACE;
                        $surface = 4 + 4 * $zone + $jaw;
                    }
                }
            }
            if ($dx * $vx + $dy * $vy < 0.0 || $dx * $ax + $dy * $ay < 0.0) {
                $t = Approach::within($dx + 0.0, $dy + 0.0, $vx + 0.0, $vy + 0.0, $ax + 0.0, $ay + 0.0, 0.0 + $this->radius, 0.0 + $this->gap, $time - $since);
                if ($t < \INF) {
                    $at = $this->notPressed($b, 6 + 4 * $zone + $jaw, $since + $t);
                    if ($at < $time) {
                        $time = $at;
                        $kind = self::SURFACE;
                        $surface = 6 + 4 * $zone + $jaw;
                    }
                }
            }
        }
        // The hole: past its middle, out of its circle, or into it.
        $axisX = $pocket[14];
        $axisY = $pocket[15];
        $hx = $x - $pocket[16];
        $hy = $y - $pocket[17];
        $inwards = $vx * $axisX + $vy * $axisY;
        $pull = $ax * $axisX + $ay * $axisY;
        $at = $since + Approach::crossing(-$hx * $axisX - $hy * $axisY, -$inwards, -$pull, 0.0 + $this->gap);
        if ($at < $time) {
            $time = $at;
            $kind = self::DROPS;
        }
        if ($drops < \INF) {
            $at = $since + Approach::leaving($hx + 0.0, $hy + 0.0, $vx + 0.0, $vy + 0.0, $ax + 0.0, $ay + 0.0, $pocket[18] + 1e-9, $time - $since);
            if ($at < $time) {
                $time = $at;
                $kind = self::LEAVES_HOLE;
            }
        } elseif ($hx * $vx + $hy * $vy < 0.0 || $hx * $ax + $hy * $ay < 0.0) {
            $at = $since + Approach::within($hx + 0.0, $hy + 0.0, $vx + 0.0, $vy + 0.0, $ax + 0.0, $ay + 0.0, $pocket[18] + 0.0, 0.0 + $this->gap, $time - $since);
            if ($at < $time) {
                // In the hole until it drops, if nothing comes before that: seen ahead, or looked at again when it comes to the hole.
                $fall = $at + self::DROP_TIME;
                $b->drops = $fall;
                if (self::DROPS !== $kind || $fall < $time) {
                    if ($fall < $time) {
                        $t = $fall - $since;
                        $hx += $t * ($vx + 0.5 * $t * $ax);
                        $hy += $t * ($vy + 0.5 * $t * $ay);
                    }
                    if ($fall < $time && $hx * $hx + $hy * $hy < $pocket[18] * $pocket[18]) {
                        $time = $fall;
                        $kind = self::DROPS;
                    } else {
                        $b->drops = \INF;
                        $time = $at;
                        $kind = self::ENTERS_HOLE;
                    }
                }
            }
        }
        // Back to the open table.
        $mx = $x - $pocket[12];
        $depth = $mx * $axisX + ($y - $pocket[13]) * $axisY + $pocket[19];
        $at = $since + Approach::crossing($depth + 0.0, $inwards + 0.0, $pull + 0.0, 0.0 + $this->gap);
        if ($at < $time) {
            $time = $at;
            $kind = self::LEAVES_ZONE;
        }
        if ($isSide) {
            $reach = $this->surfaces->sideHalf + $pocket[19];
            $at = $since + Approach::crossing($reach - $mx, -$vx, -$ax, 0.0 + $this->gap);
            if ($at < $time) {
                $time = $at;
                $kind = self::LEAVES_ZONE;
            }
            $at = $since + Approach::crossing($reach + $mx, $vx + 0.0, $ax + 0.0, 0.0 + $this->gap);
            if ($at < $time) {
                $time = $at;
                $kind = self::LEAVES_ZONE;
            }
        }
        $b->ownKind = $kind;
        $b->ownSurface = $surface;

        return $time;
    }

    // ---- meetings -------------------------------------------------------------------------------------------------------

    /**
     * When two balls meet, at the latest until either's own next event changes its path.
     *
     * @param Body $a
     * @param Body $b
     */
    public function meeting($a, $b, float $now): float
    {
        if ($a->phase >= self::POCKETED || $b->phase >= self::POCKETED) {
            return \INF;
        }
        if ($b->index < $a->index) {
            return $this->meeting($b, $a, $now);
        }
        $until = $a->ownTime < $b->ownTime ? $a->ownTime : $b->ownTime;
        $time = $this->paths(
            $now, $until, $a->since, $a->x, $a->y, $a->vx, $a->vy, $a->ax, $a->ay,
            $b->since, $b->x, $b->y, $b->vx, $b->vy, $b->ax, $b->ay,
        );

        return $this->notPressedPair($a->index, $b->index, $time);
    }

    private function paths(float $now, float $until, float $sa, float $xa, float $ya, float $vxa, float $vya, float $axa, float $aya, float $sb, float $xb, float $yb, float $vxb, float $vyb, float $axb, float $ayb): float
    {
        if ($sa > $now) {
            $now = $sa;
        }
        if ($sb > $now) {
            $now = $sb;
        }
        if ($until < $now) {
            return \INF;
        }
        $ta = $now - $sa;
        $tb = $now - $sb;

        // A ball that does not move has neither velocity nor acceleration.
        return $now + $this->closes(
            $xb + $tb * ($vxb + 0.5 * $tb * $axb) - $xa - $ta * ($vxa + 0.5 * $ta * $axa),
            $yb + $tb * ($vyb + 0.5 * $tb * $ayb) - $ya - $ta * ($vya + 0.5 * $ta * $aya),
            $vxb + $tb * $axb - $vxa - $ta * $axa,
            $vyb + $tb * $ayb - $vya - $ta * $aya,
            $axb - $axa,
            $ayb - $aya,
            $until - $now,
        );
    }

    /** The time of a meeting, or that until which the pair is let alone. */
    private function notPressedPair(int $one, int $other, float $time): float
    {
        if (\INF === $time || [] === $this->pressedUntil) {
            return $time;
        }
        $until = $this->pressedUntil[self::pair($one, $other)] ?? 0.0;

        return $time > $until ? $time : $until;
    }

    /**
     * How long until a point at d, with velocity v and acceleration a, is within two radii of the origin; INF if it is not by the
     * horizon. Three cheap tests send most pairs away: they recede for good; the least projection on the line of centres is too
     * long; the chord of their relative path, widened by its sagitta, passes too far.
     */
    private function closes(float $dx, float $dy, float $vx, float $vy, float $ax, float $ay, float $horizon): float
    {
        $rate = $dx * $vx + $dy * $vy;
        $pull = $dx * $ax + $dy * $ay;
        if ($rate >= 0.0 && $pull >= 0.0) {
            return \INF;
        }
        $square = $dx * $dx + $dy * $dy;
        $t = $pull > 0.0 && -$rate < $horizon * $pull ? -$rate / $pull : $horizon;
        $rest = $square + $t * ($rate + 0.5 * $t * $pull);
        $reach = $this->reach;
        if ($rest > 0.0 && $rest * $rest > $square * $reach * $reach * 1.000001) {
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
            $wide = $reach + 0.125 * $horizon * $horizon * \sqrt($ax * $ax + $ay * $ay) + 1e-9;
            if ($ex * $ex + $ey * $ey > $wide * $wide) {
                return \INF;
            }
        }

        return Approach::within($dx, $dy, $vx, $vy, $ax, $ay, $reach, 0.0 + $this->gap, $horizon);
    }

    /**
     * A pair's contact was plastic and presses on: it is let alone until a time.
     *
     * @param Body $a
     * @param Body $b
     */
    public function press($a, $b, float $until): void
    {
        $this->pressedUntil[self::pair($a->index, $b->index)] = $until;
    }

    /**
     * Until when a pair is let alone; -1 if it is not. The pressure is over with this.
     *
     * @param Body $a
     * @param Body $b
     */
    public function release($a, $b): float
    {
        if ([] === $this->pressedUntil) {
            return -1.0;
        }
        $pair = self::pair($a->index, $b->index);
        $until = $this->pressedUntil[$pair] ?? -1.0;
        unset($this->pressedUntil[$pair]);

        return $until;
    }

    private static function pair(int $one, int $other): int
    {
        return $one < $other ? 32 * $one + $other : 32 * $other + $one;
    }
}
