<?php

declare(strict_types=1);

namespace ZigLane\Core\Position;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Spot;

/** Straight lines of balls on a table, by exact geometry: what lies beside or in them. */
final readonly class Sight
{
    /** A way on which a ball passes all others by this is free, metres. */
    public const TIGHT = 0.002;

    public function __construct(private BallSet $set)
    {
    }

    /**
     * Gap between a ball that rolls straight from one spot to another and each other ball beside its way, metres: negative where it
     * would touch. Balls behind the start or past the end count only where the moving ball comes near them.
     *
     * @param list<Ball> $except balls that do not count
     *
     * @return array{left: array{float, Ball}|null, right: array{float, Ball}|null} the nearest on either side
     */
    public function clearance(Layout $layout, Spot $from, Spot $to, array $except): array
    {
        $length = $from->distanceTo($to);
        $ex = $length > 0.0 ? ($to->x - $from->x) / $length : 1.0;
        $ey = $length > 0.0 ? ($to->y - $from->y) / $length : 0.0;
        $nearest = ['left' => null, 'right' => null];
        foreach ($layout->balls() as $ball) {
            if (\in_array($ball, $except, true)) {
                continue;
            }
            $spot = $layout->spot($ball);
            $along = ($spot->x - $from->x) * $ex + ($spot->y - $from->y) * $ey;
            $across = ($spot->y - $from->y) * $ex - ($spot->x - $from->x) * $ey;
            $past = max(-$along, $along - $length, 0.0);
            $gap = hypot($past, $across) - $this->set->diameter();
            if ($past > 0.0 && $gap > 0.0) {
                continue;
            }
            $side = $across >= 0.0 ? 'left' : 'right';
            if (null === $nearest[$side] || $gap < $nearest[$side][0]) {
                $nearest[$side] = [$gap, $ball];
            }
        }

        return $nearest;
    }

    /**
     * Whether a ball that rolls straight from one spot to another passes every other at this gap or more, metres; as `clearance` counts.
     *
     * @param Layout $others without the balls that do not count
     */
    public function isFree(Layout $others, Spot $from, Spot $to, float $gap): bool
    {
        $length = $from->distanceTo($to);
        $ex = $length > 0.0 ? ($to->x - $from->x) / $length : 1.0;
        $ey = $length > 0.0 ? ($to->y - $from->y) / $length : 0.0;
        $reach = $this->set->diameter();
        foreach ($others->places() as [$x, $y]) {
            $along = ($x - $from->x) * $ex + ($y - $from->y) * $ey;
            $past = max(-$along, $along - $length, 0.0);
            $apart = hypot($past, ($y - $from->y) * $ex - ($x - $from->x) * $ey) - $reach;
            if ($apart < $gap && ($past <= 0.0 || $apart <= 0.0)) {
                return false;
            }
        }

        return true;
    }

    /**
     * How much of a ball the cue ball can meet on a straight line: the share of the directions that would meet it on an empty table
     * in which no other ball is met first, 0 (hooked) to 1.
     *
     * @return array{float, list<Ball>} the share, and the balls that take away from it
     */
    public function seen(Layout $layout, Spot $from, Ball $target): array
    {
        $reach = $this->set->diameter();
        $goal = $layout->spot($target);
        $distance = max($from->distanceTo($goal), $reach);
        $middle = $from->directionTo($goal);
        $half = asin(min(1.0, $reach / $distance));
        $blocked = [];
        $blockers = [];
        foreach ($layout->balls() as $ball) {
            if (Ball::Cue === $ball || $ball === $target) {
                continue;
            }
            $spot = $layout->spot($ball);
            $apart = $from->distanceTo($spot);
            if ($apart > $distance || $apart < 1e-9) {
                continue;
            }
            $turn = fmod($from->directionTo($spot) - $middle + 3 * \M_PI, 2 * \M_PI) - \M_PI;
            $wide = asin(min(1.0, $reach / max($apart, $reach)));
            if ($turn - $wide < $half && $turn + $wide > -$half) {
                $blocked[] = [max(-$half, $turn - $wide), min($half, $turn + $wide)];
                $blockers[] = $ball;
            }
        }
        sort($blocked);
        $free = 2 * $half;
        $until = -$half;
        foreach ($blocked as [$low, $high]) {
            $free -= max(0.0, $high - max($low, $until));
            $until = max($until, $high);
        }

        return [max(0.0, $free) / (2 * $half), $blockers];
    }
}
