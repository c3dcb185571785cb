<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Angle;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\PocketGeometry;
use ZigLane\Core\Table\Spot;

/** The plain geometry of a pot without throw, squirt or swerve: where the cue ball's centre would have to be at contact. */
final readonly class GhostBall
{
    private function __construct(
        public Spot $at,
        /** Direction from the cue ball to the ghost ball, radians. */
        public float $direction,
        /** Distance from the cue ball to the ghost ball, metres. */
        public float $distance,
        /** Angle between the line of aim and the object ball's line, degrees: 0 full, below 90. */
        public float $cutDegrees,
        /** True when the object ball leaves to the left of the line of aim, seen by the player. */
        public bool $cutsLeft,
        /** Direction of the object ball's line to the pocket, radians. */
        public float $objectDirection,
        /** Length of that line to the middle of the mouth, metres. */
        public float $objectDistance,
    ) {
    }

    /**
     * @param float $aside how far to the left of the middle of the mouth the object ball is to pass, seen from it, metres
     *
     * @throws NoAim If the ball lies over the hole or the cut would be 90 degrees or more
     */
    public static function of(Spot $cue, Spot $object, PocketGeometry $pocket, BallSet $balls, Ball $ball, float $aside = 0.0): self
    {
        $target = $pocket->target($object);
        $target = 0.0 === $aside ? $target : $target->towards($object->directionTo($target) + \M_PI_2, $aside);
        if ($object->distanceTo($target) < 1e-6) {
            throw NoAim::pocketShut($ball, $pocket->pocket);
        }
        $line = $object->directionTo($target);
        $ghost = $object->towards($line + \M_PI, $balls->diameter());
        $direction = $cue->distanceTo($ghost) < 1e-6 ? $line : $cue->directionTo($ghost);
        $turn = Angle::wrapped($line - $direction);
        if (abs($turn) >= \M_PI_2) {
            throw NoAim::cutTooThin($ball, $pocket->pocket, rad2deg(abs($turn)));
        }

        return new self($ghost, $direction, $cue->distanceTo($ghost), rad2deg(abs($turn)), $turn > 0, $line, $object->distanceTo($target));
    }

    /**
     * A shot aimed by hand: where a cue ball that goes straight in a direction (radians) meets the ball, or, if it passes or meets a
     * cushion first, where it comes nearest; the ball's line is that of centres.
     */
    public static function byHand(Spot $cue, Spot $object, float $direction, BallSet $balls): self
    {
        $far = $cue->distanceTo($object);
        $turn = Angle::wrapped($cue->directionTo($object) - $direction);
        $along = max(0.0, $far * cos($turn));
        $beside = abs($far * sin($turn));
        $reach = $balls->diameter();
        $distance = max(0.0, $along - \sqrt(max(0.0, $reach ** 2 - $beside ** 2)));
        $at = $cue->towards($direction, $distance);
        $line = $at->distanceTo($object) < 1e-9 ? $direction : $at->directionTo($object);
        $cut = Angle::wrapped($line - $direction);

        return new self($at, $direction, $distance, min(90.0, rad2deg(abs($cut))), $cut > 0, $line, 0.3);
    }

    /** 1 full, 0 thinnest: the share of the object ball that the cue ball covers, seen along the line of aim. */
    public function ballHitFraction(): float
    {
        return 1 - sin(deg2rad($this->cutDegrees));
    }
}
