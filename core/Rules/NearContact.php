<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Angle;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;

/**
 * A cue ball close to the object ball: the tip that follows through meets it a second time, or pushes both (WPA, double hit and frozen
 * balls, from memory). A ball hit full gives its speed away and stays before the cue, which keeps something under half of it: only a
 * hit so thin that the cue ball leaves faster than that, or a cue raised so far that it goes down and not through, is clean. Balls that
 * touch may be shot at in any direction.
 */
final class NearContact
{
    /** About the width of a chalk, metres: common practice. */
    public const NEAR = 0.025;
    /** Nearer than this they touch, metres. */
    public const TOUCHING = 0.00005;
    /** A cut from which the cue ball leaves in time, and an elevation from which the cue does not follow, degrees: common practice. */
    public const THIN = 45.0;
    public const RAISED = 40.0;

    private function __construct(
        public Ball $ball,
        /** Metres. */
        public float $gap,
        /** Of the hit, degrees. */
        public float $cut,
    ) {
    }

    /** The double hit that a strike makes, or null if it is clean. */
    public static function of(Layout $before, Strike $strike, Equipment $equipment): ?self
    {
        if (!$before->has(Ball::Cue) || rad2deg($strike->elevation) >= self::RAISED) {
            return null;
        }
        $cue = $before->spot(Ball::Cue);
        $reach = $equipment->balls->diameter();
        $nearest = null;
        foreach ($before->balls() as $ball) {
            if (Ball::Cue === $ball) {
                continue;
            }
            $gap = $cue->distanceTo($before->spot($ball)) - $reach;
            if ($gap >= self::NEAR || $gap < self::TOUCHING || $gap >= ($nearest->gap ?? \INF)) {
                continue;
            }
            $turn = abs(Angle::wrapped($cue->directionTo($before->spot($ball)) - $strike->direction - $strike->squirt()));
            $aside = ($gap + $reach) * sin($turn);
            if ($turn < \M_PI_2 && $aside < $reach && rad2deg(asin($aside / $reach)) < self::THIN) {
                $nearest = new self($ball, $gap, rad2deg(asin($aside / $reach)));
            }
        }

        return $nearest;
    }
}
