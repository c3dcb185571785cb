<?php

declare(strict_types=1);

namespace ZigLane\Core\PositionPlay;

use ZigLane\Core\Motion\Event;
use ZigLane\Core\Shot\SolvedShot;

/** A stroke that brings the cue ball near where it is wished. */
final readonly class Landing
{
    public function __construct(
        public SolvedShot $shot,
        /** The cushions and jaws on the way, in order: "foot, left"; "direct" without. */
        public string $route,
        /** How far from there the cue ball stops when nothing goes wrong, metres (LandingTarget::off). */
        public float $off,
        /** Chance of the pot, and of the pot with a stop that the target holds; from trials, 0 where none were made. */
        public float $made = 0.0,
        public float $there = 0.0,
        /** Chance that there is neither a scratch nor another ball struck, whether the ball is potted or not. */
        public float $clear = 0.0,
    ) {
    }

    public static function routeOf(SolvedShot $shot): string
    {
        $names = array_map(static fn (Event $event): string => $event->rail->value ?? 'jaw '.($event->pocket->value ?? ''), $shot->cushions());

        return [] === $names ? 'direct' : implode(', ', $names);
    }
}
