<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Motion\Event;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Motion\Outcome;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\Layout;

/** A called shot with its aim and what the simulation says comes of it. */
final readonly class SolvedShot
{
    public function __construct(
        public Layout $layout,
        public ShotChoice $choice,
        public Aim $aim,
        public Strike $strike,
        public Outcome $outcome,
    ) {
    }

    /** Whether the called ball drops in the called pocket. */
    public function isMade(): bool
    {
        return $this->outcome->pocketOf($this->choice->ball) === $this->choice->pocket;
    }

    /** Whether the shooter can go on: the called ball is made and the cue ball stays on the table. */
    public function goesOn(): bool
    {
        return $this->isMade() && null === $this->scratch();
    }

    /** The pocket that the cue ball drops in, or null. */
    public function scratch(): ?Pocket
    {
        return $this->outcome->pocketOf(Ball::Cue);
    }

    /** A ball other than the called one that the cue ball meets first, or null. */
    public function blocker(): ?Ball
    {
        $first = $this->outcome->firstContact();
        if (null === $first) {
            return null;
        }
        $met = Ball::Cue === $first->ball ? $first->other : $first->ball;

        return $met === $this->choice->ball ? null : $met;
    }

    /** Whether the cue ball meets a cushion or jaw before any ball, so that it does not come as aimed. */
    public function touchesCushionFirst(): bool
    {
        foreach ($this->outcome->eventsOf(Ball::Cue) as $event) {
            if (EventKind::Ball === $event->kind) {
                return false;
            }
            if (EventKind::Cushion === $event->kind || EventKind::Jaw === $event->kind) {
                return true;
            }
        }

        return false;
    }

    /** @return list<Event> the cue ball's contacts with rails and jaws, in order */
    public function cushions(): array
    {
        return $this->outcome->cushions(Ball::Cue);
    }

    /** @return list<Ball> other balls that move, in order of their first contact */
    public function disturbed(): array
    {
        $moved = [];
        foreach ($this->outcome->events as $event) {
            if (EventKind::Ball !== $event->kind) {
                continue;
            }
            foreach ([$event->ball, $event->other] as $ball) {
                if (null !== $ball && Ball::Cue !== $ball && $ball !== $this->choice->ball && !\in_array($ball, $moved, true)) {
                    $moved[] = $ball;
                }
            }
        }

        return $moved;
    }
}
