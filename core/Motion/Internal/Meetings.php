<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

/**
 * When balls meet: those that have moved with each other, and each with those that lie where they lay. As with surfaces (Body), a pair
 * whose contact was plastic presses on and is let alone until a time.
 *
 * Balls as arguments have their class in the comment only, because it would be looked up in every call; what is given to methods of other
 * classes is an expression and no variable (Body says why).
 *
 * @internal
 */
final class Meetings
{
    // As in Body, whose constants would be looked up at run time.
    private const ROLLING = 1;
    private const POCKETED = 4;

    private readonly float $reach;
    private readonly float $gap;

    /** @var list<Body> all balls */
    private array $bodies = [];

    /** @var array<int, float> where those lie that lie where they lay, along the table, in that order, keyed by index */
    private array $stillX = [];

    /** @var array<int, float> and across it */
    private array $stillY = [];

    /** @var array<int, float> until when a pair that is pressed together is left alone, keyed by both indices */
    private array $pressedUntil = [];

    public function __construct(public readonly Conditions $conditions)
    {
        $this->reach = 2 * $conditions->radius;
        $this->gap = $conditions->tolerances->gap;
    }

    /**
     * A shot begins: some balls move, the others lie where they lay.
     *
     * @param list<Body> $struck with their velocities and spins set
     */
    public function start(InitialState $start, array $struck): void
    {
        $this->bodies = $start->bodies;
        $this->pressedUntil = [];
        $x = $start->x;
        $y = $start->y;
        foreach ($struck as $body) {
            unset($x[$body->index], $y[$body->index]);
        }
        $this->stillX = $x;
        $this->stillY = $y;
        foreach ($struck as $body) {
            $body->findZone();
            $body->settle(0.0);
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
        $b->findZone();

        return true;
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
                $b, $now, $b->x + $t * ($b->vx + 0.5 * $t * $b->ax), $b->y + $t * ($b->vy + 0.5 * $t * $b->ay),
                $b->vx + $t * $b->ax,
                $b->vy + $t * $b->ay,
                $b->ax,
                $b->ay,
                $b->left - $reach,
                $b->right + $reach,
                $b->bottom - $reach,
                $b->top + $reach,
            );
        }
    }

    /**
     * When a ball meets one that lies where it lay: its time and partner are written down. The last four are its box, widened by two radii.
     *
     * @param Body $b
     */
    public function searchStill(
        $b, float $now, float $x, float $y, float $vx, float $vy, float $ax, float $ay, float $left,
        float $right, float $bottom, float $top,
    ): void {
        $earliest = \INF;
        $partner = -1;
        $horizon = $b->ownTime - $now;
        $stillY = $this->stillY;
        foreach ($this->stillX as $i => $sx) {
            if ($sx > $right) {
                break;
            }
            if ($sx >= $left) {
                $sy = $stillY[$i];
                if ($sy >= $bottom && $sy <= $top) {
                    $time = $now + $this->closes($sx - $x, $sy - $y, -$vx, -$vy, -$ax, -$ay, $horizon);
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

    /** Whether a ball lies in a box where it lay. */
    public function isAnyStill(float $left, float $right, float $bottom, float $top): bool
    {
        foreach ($this->stillX as $i => $x) {
            if ($x > $right) {
                return false;
            }
            if ($x >= $left && $this->stillY[$i] >= $bottom && $this->stillY[$i] <= $top) {
                return true;
            }
        }

        return false;
    }

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

    private function paths(
        float $now, float $until, float $sa, float $xa, float $ya, float $vxa, float $vya, float $axa,
        float $aya, float $sb, float $xb, float $yb, float $vxb, float $vyb, float $axb, float $ayb,
    ): float {
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
