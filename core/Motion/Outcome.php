<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\Layout;

/** What came of one shot. Drawing, numbers and stored plan are all read from here, so that they cannot disagree. */
final readonly class Outcome
{
    /**
     * @param list<Event>            $events       in order of time
     * @param array<int, Trajectory> $trajectories keyed by the ball's number
     * @param Layout                 $final        the balls left on the table
     * @param array<int, Pocket>     $pocketed     keyed by the ball's number
     */
    public function __construct(
        public array $events,
        public array $trajectories,
        public Layout $final,
        public array $pocketed,
    ) {
    }

    /** Time of the last event, seconds. */
    public function duration(): float
    {
        return [] === $this->events ? 0.0 : $this->events[array_key_last($this->events)]->time;
    }

    public function trajectory(Ball $ball): Trajectory
    {
        return $this->trajectories[$ball->value] ?? throw new \OutOfBoundsException($ball->label().' took no part in this shot');
    }

    public function pocketOf(Ball $ball): ?Pocket
    {
        return $this->pocketed[$ball->value] ?? null;
    }

    public function isScratch(): bool
    {
        return isset($this->pocketed[Ball::Cue->value]);
    }

    /** The first ball that the cue ball meets, or null if it meets none. */
    public function firstContact(): ?Event
    {
        foreach ($this->events as $event) {
            if (EventKind::Ball === $event->kind && $event->involves(Ball::Cue)) {
                return $event;
            }
        }

        return null;
    }

    /** @return list<Event> a ball's contacts with rails and jaws, in order */
    public function cushions(Ball $ball): array
    {
        return array_values(array_filter(
            $this->eventsOf($ball),
            static fn (Event $event): bool => EventKind::Cushion === $event->kind || EventKind::Jaw === $event->kind,
        ));
    }

    /** @return list<Event> the events of one ball, of one kind if given */
    public function eventsOf(Ball $ball, ?EventKind $kind = null): array
    {
        return array_values(array_filter(
            $this->events,
            static fn (Event $event): bool => $event->involves($ball) && (null === $kind || $event->kind === $kind),
        ));
    }
}
