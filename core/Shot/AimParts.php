<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Motion\BallContact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Angle;
use ZigLane\Core\Table\Equipment;

/** What the aim is made of: how far throw turns the object ball, how much of that is the cut's and how much the side's, and swerve. */
final readonly class AimParts
{
    private function __construct(
        /** Throw off the line of centres, degrees, positive to the left seen along it: the part of the cut, and the part of the side. */
        public float $cutThrow,
        public float $spinThrow,
        /** How far the cue ball's direction at contact has turned from its departure, degrees, left positive; null after a cushion. */
        public ?float $swerve,
        /** Tip side, as a fraction of the radius, with which cut and side cancel at this speed and distance. */
        public float $gearing,
        /** The cut as the balls meet, degrees from the cue ball's way there to the line of centres: positive to the left, 0 full. */
        public float $cut,
    ) {
    }

    /** Null if the cue ball meets no ball. */
    public static function of(SolvedShot $shot, Equipment $equipment): ?self
    {
        [$table, $balls] = [$equipment->table, $equipment->balls];
        $contact = $shot->outcome->firstContact();
        if (null === $contact || null === $contact->other) {
            return null;
        }
        $just = $contact->time - 1e-9;
        $path = $shot->outcome->trajectory(Ball::Cue);
        $segment = $path->segmentAt($just);
        $cue = $path->at($just);
        $object = $shot->layout->spot(Ball::Cue === $contact->ball ? $contact->other : $contact->ball);
        [$vx, $vy] = $segment->velocity($just);
        [$wx, $wy, $wz] = $segment->spin($just, $balls, $table);
        $line = $cue->directionTo($object);
        [$nx, $ny] = [cos($line), sin($line)];
        $law = new BallContact($balls);
        $thrown = static function (float $wz) use ($law, $nx, $ny, $vx, $vy, $wx, $wy, $line): float {
            [$jx, $jy] = $law->impulse($nx, $ny, $vx, $vy, $wx, $wy, $wz);

            return rad2deg(Angle::wrapped(atan2(-$jy, -$jx) - $line));
        };
        $cut = $thrown(0.0);
        // No slip across the line of centres: the surface speed of the side undoes the cue ball's own speed across it; what the cloth
        // takes of the side on the way is given at the strike.
        $across = -$vx * $ny + $vy * $nx;
        $spin = abs($across) / $balls->radius + $table->spinDecay * $contact->time;
        $departure = $shot->strike->direction + $shot->strike->squirt();

        return new self(
            $cut,
            $thrown($wz) - $cut,
            $shot->touchesCushionFirst() ? null : rad2deg(Angle::wrapped(atan2($vy, $vx) - $departure)),
            ($across > 0.0 ? -1 : 1) * $spin * $balls->radius / (2.5 * $shot->strike->speed),
            rad2deg(Angle::wrapped($line - atan2($vy, $vx))),
        );
    }
}
