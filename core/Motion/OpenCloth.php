<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Motion\Internal\BallMotion;
use ZigLane\Core\Motion\Internal\Body;
use ZigLane\Core\Motion\Internal\Surfaces;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\TableProfile;

/**
 * The cue ball and one object ball on a cloth without cushions: where they meet and where the object ball heads. For finding
 * an aim, which must not be misled by what the balls do to the rest of the table.
 */
final readonly class OpenCloth
{
    private BallMotion $motion;
    private BallContact $contact;

    public function __construct(TableProfile $table, private BallSet $balls, Tolerances $tolerances = new Tolerances())
    {
        $this->motion = new BallMotion($table, $balls, new Surfaces($table, $balls), $tolerances, true);
        $this->contact = new BallContact($balls);
    }

    /** Path of the cue ball from the strike until it stops. */
    public function path(Spot $cue, Strike $strike): Trajectory
    {
        $body = $this->struck($cue, $strike);
        $this->motion->start([$body], [$body]);
        $this->follow($body);

        return Trajectory::fromTrack($body->track);
    }

    /** Where the cue ball's centre is when it meets the object ball, and the object ball's path from there; null if it misses. */
    public function meeting(Spot $cue, Strike $strike, Spot $object): ?Meeting
    {
        $a = $this->struck($cue, $strike);
        $b = new Body(1, $object->x, $object->y);
        $this->motion->start([$a, $b], [$a]);
        $this->follow($a);
        $time = $a->pairTime;
        if (\INF === $time) {
            return null;
        }
        $this->motion->advance($a, $time);
        $dx = $b->x - $a->x;
        $dy = $b->y - $a->y;
        $distance = hypot($dx, $dy);
        [$jx, $jy, $b->wx, $b->wy, $b->wz] = $this->contact->impulse($dx / $distance, $dy / $distance, $a->vx, $a->vy, $a->wx, $a->wy, $a->wz);
        $b->vx = -$jx;
        $b->vy = -$jy;
        $this->motion->wake($b);
        $this->motion->settle($b, $time);
        $this->follow($b);

        return new Meeting($time, Spot::metres($a->x, $a->y), atan2($a->vy, $a->vx), Trajectory::fromTrack($b->track));
    }

    /** Lets a ball run until it stops or meets another. */
    private function follow(Body $body): void
    {
        while ($body->isMoving() && $body->ownTime < $body->pairTime) {
            $this->motion->happen($body);
        }
    }

    private function struck(Spot $cue, Strike $strike): Body
    {
        $body = new Body(0, $cue->x, $cue->y);
        [$body->vx, $body->vy, $body->wx, $body->wy, $body->wz] = $strike->velocities($this->balls->radius);

        return $body;
    }
}
