<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Position\Layout;

/** What a shot comes to, without its paths: for trying many. */
final readonly class Ending
{
    /**
     * @param Layout                                $final    the balls left on the table
     * @param array<int, Pocket>                    $pocketed keyed by the ball's number
     * @param Ball|null                             $first    the first ball that the cue ball meets
     * @param list<Ball>                            $struck   every ball that moved or was met, but the cue ball
     * @param list<Rail|Pocket>                     $cushions what the cue ball touched, in order: a rail, or the jaw of a pocket
     * @param list<Rail|Pocket>                     $before   those of them before it met a ball
     * @param list<array{Ball, Rail|Pocket, float}> $driven   balls that met a rail or jaw after the cue ball's first contact, in order,
     *                                                        with the seconds since each was struck
     */
    public function __construct(
        public Layout $final,
        public array $pocketed,
        public ?Ball $first,
        public array $struck,
        public array $cushions,
        public array $before = [],
        public array $driven = [],
    ) {
    }

    /** What a shot that was simulated with its paths comes to. */
    public static function of(Outcome $outcome): self
    {
        $first = null;
        $cushions = $before = $driven = $struckAt = $struck = [];
        foreach ($outcome->events as $event) {
            if (EventKind::Ball === $event->kind && null !== $event->other) {
                $struckAt[$event->ball->value] ??= $event->time;
                $struckAt[$event->other->value] ??= $event->time;
                if (null === $first && (Ball::Cue === $event->ball || Ball::Cue === $event->other)) {
                    $first = Ball::Cue === $event->ball ? $event->other : $event->ball;
                    $before = $cushions;
                }
            } elseif (EventKind::Cushion === $event->kind || EventKind::Jaw === $event->kind) {
                $met = $event->rail ?? $event->pocket;
                if (null === $met) {
                    continue;
                }
                if (Ball::Cue === $event->ball) {
                    $cushions[] = $met;
                }
                if (null !== $first) {
                    $driven[] = [$event->ball, $met, $event->time - ($struckAt[$event->ball->value] ?? 0.0)];
                }
            }
        }
        foreach ($outcome->trajectories as $number => $trajectory) {
            if (0 !== $number && $trajectory->moves()) {
                $struck[] = Ball::from($number);
            }
        }

        return new self($outcome->final, $outcome->pocketed, $first, $struck, $cushions, null === $first ? $cushions : $before, $driven);
    }

    public function pocketOf(Ball $ball): ?Pocket
    {
        return $this->pocketed[$ball->value] ?? null;
    }

    /** @return list<Ball> the balls that were struck, but one */
    public function struckBut(Ball $called): array
    {
        return array_values(array_filter($this->struck, static fn (Ball $ball): bool => $ball !== $called));
    }

    public function isScratch(): bool
    {
        return isset($this->pocketed[Ball::Cue->value]);
    }
}
