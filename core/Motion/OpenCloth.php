<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Motion\Internal\Approach;
use ZigLane\Core\Motion\Internal\Body;
use ZigLane\Core\Motion\Internal\Cloth;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\TableProfile;

/**
 * The cue ball and one object ball on a cloth without cushions: where they meet and where the object ball heads. For finding
 * an aim, which must not be misled by what the balls do to the rest of the table.
 */
final readonly class OpenCloth
{
    private Cloth $cloth;
    private BallContact $contact;

    public function __construct(TableProfile $table, private BallSet $balls, private Tolerances $tolerances = new Tolerances())
    {
        $this->cloth = Cloth::of($table, $balls, $tolerances);
        $this->contact = new BallContact($balls);
    }

    /** Path of the cue ball from the strike until it stops. */
    public function path(Spot $cue, Strike $strike): Trajectory
    {
        $body = $this->struck($cue, $strike);
        while ($body->isMoving()) {
            $this->toNextPhase($body);
        }

        return Trajectory::fromTrack($body->track);
    }

    /** Where the cue ball's centre is when it meets the object ball, and the object ball's path from there; null if it misses. */
    public function meeting(Spot $cue, Strike $strike, Spot $object): ?Meeting
    {
        $a = $this->struck($cue, $strike);
        while ($a->isMoving()) {
            $after = Approach::within($object->x - $a->x, $object->y - $a->y, -$a->vx, -$a->vy, -$a->ax, -$a->ay, $this->balls->diameter(), $this->tolerances->gap, $a->phaseEnds - $a->since);
            if ($after < \INF) {
                return $this->meet($a, $a->since + $after, $object);
            }
            $this->toNextPhase($a);
        }

        return null;
    }

    private function meet(Body $a, float $time, Spot $object): Meeting
    {
        $a->advance($this->cloth, $time);
        $dx = $object->x - $a->x;
        $dy = $object->y - $a->y;
        $distance = hypot($dx, $dy);
        $b = new Body(1, $object->x, $object->y);
        [$jx, $jy, $b->wx, $b->wy, $b->wz] = $this->contact->impulse($dx / $distance, $dy / $distance, $a->vx, $a->vy, $a->wx, $a->wy, $a->wz);
        $b->vx = -$jx;
        $b->vy = -$jy;
        $b->settle($this->cloth, $time);
        while ($b->isMoving()) {
            $this->toNextPhase($b);
        }

        return new Meeting($time, Spot::metres($a->x, $a->y), atan2($a->vy, $a->vx), Trajectory::fromTrack($b->track));
    }

    private function toNextPhase(Body $body): void
    {
        $time = $body->phaseEnds;
        $body->advance($this->cloth, $time);
        $body->endPhase($this->cloth, $time);
    }

    private function struck(Spot $cue, Strike $strike): Body
    {
        $body = new Body(0, $cue->x, $cue->y);
        [$body->vx, $body->vy, $body->wx, $body->wy, $body->wz] = $strike->velocities($this->balls->radius);
        $body->settle($this->cloth, 0.0);

        return $body;
    }
}
