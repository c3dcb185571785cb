<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Motion\Internal\Body;
use ZigLane\Core\Motion\Internal\Conditions;
use ZigLane\Core\Motion\Internal\InitialState;
use ZigLane\Core\Motion\Internal\Meetings;
use ZigLane\Core\Motion\Internal\Surfaces;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * The cue ball and one object ball on a cloth without cushions: where they meet and where the object ball heads. For finding
 * an aim, which must not be misled by what the balls do to the rest of the table.
 */
final readonly class OpenCloth
{
    private const EVENTS = 20_000;

    private Meetings $meetings;
    private BallContact $contact;
    private BallSet $balls;

    public function __construct(Equipment $equipment, Tolerances $tolerances = new Tolerances())
    {
        $this->balls = $equipment->balls;
        $this->meetings = new Meetings(new Conditions(
            $equipment->table,
            $this->balls,
            new Surfaces($equipment->table, $this->balls),
            $tolerances,
            true,
        ));
        $this->contact = new BallContact($this->balls);
    }

    /** Path of the cue ball from the strike until it stops. */
    public function path(Spot $cue, Strike $strike): Trajectory
    {
        $start = new InitialState($this->meetings, [[$cue->x, $cue->y]], true);
        $body = $this->struck($start, $strike);
        $this->meetings->start($start, [$body]);
        $this->follow($body);

        return Trajectory::fromTrack($body->track);
    }

    /** Where the cue ball's centre is when it meets the object ball, and the object ball's path from there; null if it misses. */
    public function meeting(Spot $cue, Strike $strike, Spot $object): ?Meeting
    {
        $start = new InitialState($this->meetings, [[$cue->x, $cue->y], [$object->x, $object->y]], true);
        $a = $this->struck($start, $strike);
        $b = $start->bodies[1];
        $this->meetings->start($start, [$a]);
        $this->follow($a);
        $time = $a->pairTime;
        if (\INF === $time) {
            return null;
        }
        $a->advance($time);
        $dx = $b->x - $a->x;
        $dy = $b->y - $a->y;
        $distance = hypot($dx, $dy);
        [$jx, $jy, $b->wx, $b->wy, $b->wz] = $this->contact->impulse(
            $dx / $distance, $dy / $distance, $a->vx, $a->vy, $a->wx, $a->wy, $a->wz,
        );
        $share = $this->balls->takenFromCueBall();
        $b->vx = -$share * $jx;
        $b->vy = -$share * $jy;
        $b->wx *= $share;
        $b->wy *= $share;
        $b->wz *= $share;
        $this->meetings->wake($b);
        $b->settle($time);
        $this->follow($b);

        return new Meeting($time, Spot::metres($a->x, $a->y), Trajectory::fromTrack($b->track));
    }

    /** Lets a ball run until it stops or meets another. */
    private function follow(Body $body): void
    {
        // Ends: each event takes speed from the ball.
        for ($events = 0; $events < self::EVENTS && $body->isMoving() && $body->ownTime < $body->pairTime; ++$events) {
            $body->happen();
        }
    }

    /** The first ball of a lie, with the velocity and spin that the cue gives it. */
    private function struck(InitialState $start, Strike $strike): Body
    {
        $body = $start->bodies[0];
        [$body->vx, $body->vy, $body->wx, $body->wy, $body->wz] = $strike->velocities($this->balls->radius);

        return $body;
    }
}
