<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Motion\Meeting;
use ZigLane\Core\Motion\OpenCloth;
use ZigLane\Core\Motion\Phase;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Position\Angle;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableGeometry;

/**
 * Finds the direction of the cue in the full model: squirt turns the cue ball off, swerve bends it, throw turns the object
 * ball off the line of centres. The object ball's miss at the pocket falls steadily as the cue turns across the ball, so a
 * scan brackets the direction and the Illinois form of false position closes in on it (Dowell and Jarratt, BIT 11, 1971).
 * Cost: some ten two-ball meetings, and for thin cuts and bent routes a scan of SCAN more.
 */
final readonly class AimFinder
{
    private const SCAN = 72;
    /** The search ends when the object ball passes this close to the middle, metres. */
    private const CLOSE = 1e-9;

    private TableGeometry $geometry;
    private OpenCloth $cloth;
    private BallSet $balls;
    private Cue $cue;

    public function __construct(Equipment $equipment)
    {
        $this->balls = $equipment->balls;
        $this->cue = $equipment->cue;
        $this->geometry = $equipment->geometry;
        $this->cloth = new OpenCloth($equipment);
    }

    /** @throws NoAim If the pocket is shut, the cut too thin, or no direction of this stroke does it */
    public function find(Spot $cue, Spot $object, ShotChoice $choice): Aim
    {
        if (null !== $choice->direction) {
            return new Aim(GhostBall::byHand($cue, $object, $choice->direction, $this->balls), $choice->direction);
        }
        $pocket = $this->geometry->at($choice->pocket);
        $ghost = GhostBall::of($cue, $object, $pocket, $this->balls, $choice->ball, $choice->aside);
        $strike = $choice->stroke->strike($ghost->direction, $this->cue->endMassRatio);
        $bracket = $this->bracket($cue, $object, $strike, $ghost);
        if (null === $bracket) {
            throw $this->whyNot($cue, $object, $strike, $choice);
        }
        [$low, $high, $atLow, $atHigh] = $bracket;
        $direction = $low;
        $miss = $atLow;
        $kept = 0;
        for ($round = 0; $round < 100 && abs($miss) > self::CLOSE && $high - $low > 1e-14; ++$round) {
            // Far from the root the miss is bent: halve the bracket first.
            $direction = $round < 3 ? 0.5 * ($low + $high) : ($low * $atHigh - $high * $atLow) / ($atHigh - $atLow);
            $miss = $this->miss($this->cloth->meeting($cue, $strike->withDirection($direction), $object), $object, $ghost)
                ?? $this->edge($direction, $low, $high, $atLow, $atHigh);
            if (($miss > 0) === ($atLow > 0)) {
                $low = $direction;
                $atLow = $miss;
                $atHigh *= 1 === $kept ? 0.5 : 1.0;
                $kept = 1;
            } else {
                $high = $direction;
                $atHigh = $miss;
                $atLow *= -1 === $kept ? 0.5 : 1.0;
                $kept = -1;
            }
        }
        if (abs($miss) > 1e-6) {
            throw $this->whyNot($cue, $object, $strike, $choice);
        }

        return new Aim($ghost, Angle::wrapped($direction));
    }

    /**
     * How far to the left of the middle of the mouth the object ball passes when the cue points in a direction (radians), metres;
     * null if it is not met.
     *
     * @throws NoAim If the pocket is shut or the cut too thin
     */
    public function missAt(Spot $cue, Spot $object, ShotChoice $choice, float $direction): ?float
    {
        $ghost = GhostBall::of($cue, $object, $this->geometry->at($choice->pocket), $this->balls, $choice->ball, $choice->aside);

        return $this->miss(
            $this->cloth->meeting($cue, $choice->stroke->strike($direction, $this->cue->endMassRatio), $object),
            $object,
            $ghost,
        );
    }

    /**
     * Two directions between which the miss changes sign, with the misses there.
     *
     * @return array{float, float, float, float}|null
     */
    private function bracket(Spot $cue, Spot $object, Strike $strike, GhostBall $ghost): ?array
    {
        $centre = $cue->directionTo($object);
        $reach = asin(min(1.0, $this->balls->diameter() / max($cue->distanceTo($object), $this->balls->diameter())));
        // A raised cue with side bends far off its line; the scan follows it.
        $spread = $reach + abs($strike->squirt()) + 0.02 + 1.2 * $strike->elevation * (abs($strike->side) > 0.0 ? 1.0 : 0.0);
        $missAt = fn (float $direction): ?float => $this->miss(
            $this->cloth->meeting($cue, $strike->withDirection($direction), $object),
            $object,
            $ghost,
        );
        // Most aims lie close to the ghost ball's line less squirt: a bracket there saves the scan.
        $guess = $ghost->direction - $strike->squirt();
        $aside = 0.4 * $this->balls->radius / max($ghost->distance, $this->balls->radius);
        $atLow = $missAt($guess - $aside);
        $atHigh = null === $atLow ? null : $missAt($guess + $aside);
        if (null !== $atLow && null !== $atHigh && ($atLow > 0) !== ($atHigh > 0)) {
            return [$guess - $aside, $guess + $aside, $atLow, $atHigh];
        }
        $samples = [];
        $last = null;
        for ($i = 0; $i <= self::SCAN; ++$i) {
            $direction = $centre + $spread * (2 * $i / self::SCAN - 1);
            $miss = $missAt($direction);
            if (null !== $last && (null === $miss) !== (null === $last[1])) {
                $samples[] = self::thinnest($missAt, $last[0], $last[1], $direction, $miss);
            }
            $samples[] = $last = [$direction, $miss];
        }
        $best = null;
        $least = \INF;
        for ($i = 1, $n = \count($samples); $i < $n; ++$i) {
            [$low, $atLow] = $samples[$i - 1];
            [$high, $atHigh] = $samples[$i];
            $off = abs(Angle::wrapped(0.5 * ($low + $high) - $ghost->direction + $strike->squirt()));
            if (null !== $atLow && null !== $atHigh && ($atLow > 0) !== ($atHigh > 0) && $off < $least) {
                $least = $off;
                $best = [$low, $high, $atLow, $atHigh];
            }
        }

        return $best;
    }

    /**
     * Between a direction that meets the ball and one that misses it: the last that still meets it, to rounding, with its miss
     * at the pocket. Thin cuts lie right beside it.
     *
     * @param \Closure(float): (float|null) $missAt
     *
     * @return array{float, float|null}
     */
    private static function thinnest(\Closure $missAt, float $low, ?float $atLow, float $high, ?float $atHigh): array
    {
        [$met, $missed, $miss] = null === $atLow ? [$high, $low, $atHigh] : [$low, $high, $atLow];
        for ($round = 0; $round < 48; ++$round) {
            $middle = 0.5 * ($met + $missed);
            $at = $missAt($middle);
            if (null === $at) {
                $missed = $middle;
            } else {
                $met = $middle;
                $miss = $at;
            }
        }

        return [$met, $miss];
    }

    /** How far to the left of the middle of the mouth the object ball passes, metres; null if it is not met. */
    private function miss(?Meeting $meeting, Spot $object, GhostBall $ghost): ?float
    {
        if (null === $meeting) {
            return null;
        }
        $ex = cos($ghost->objectDirection);
        $ey = sin($ghost->objectDirection);
        foreach ($meeting->object->segments as $segment) {
            $along = ($segment->x - $object->x) * $ex + ($segment->y - $object->y) * $ey;
            $across = ($segment->y - $object->y) * $ex - ($segment->x - $object->x) * $ey;
            $v = $segment->vx * $ex + $segment->vy * $ey;
            $vAcross = $segment->vy * $ex - $segment->vx * $ey;
            if (Phase::Sliding === $segment->phase) {
                $a = $segment->ax * $ex + $segment->ay * $ey;
                $aAcross = $segment->ay * $ex - $segment->ax * $ey;
                $left = $ghost->objectDistance - $along;
                $root = $v * $v + 2 * $a * $left;
                $t = $root > 0 && $v > 0 ? 2 * $left / ($v + \sqrt($root)) : \INF;
                if ($t <= $segment->duration) {
                    return $across + $t * ($vAcross + 0.5 * $t * $aAcross);
                }
            } elseif (Phase::Rolling === $segment->phase) {
                // Straight from here, whether or not its speed suffices: the direction is what is sought.
                return $v > 1e-3 * hypot($v, $vAcross)
                    ? $across + ($ghost->objectDistance - $along) * $vAcross / $v
                    : ($vAcross > 0 ? 1e3 : -1e3) * $ghost->objectDistance;
            }
        }

        return null;
    }

    /** Inside a bracket the ball is met everywhere; a gap by rounding counts as the nearer end. */
    private function edge(float $direction, float $low, float $high, float $atLow, float $atHigh): float
    {
        return $direction - $low < $high - $direction ? $atLow : $atHigh;
    }

    private function whyNot(Spot $cue, Spot $object, Strike $strike, ShotChoice $choice): NoAim
    {
        $reach = $this->cloth->path($cue, $strike)->length();
        $short = $cue->distanceTo($object) - $this->balls->diameter() - $reach;

        return $short > 0
            ? NoAim::stopsShort($choice->ball, $short)
            : NoAim::notReached($choice->ball, $choice->pocket);
    }
}
