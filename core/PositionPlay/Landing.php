<?php

declare(strict_types=1);

namespace ZigLane\Core\PositionPlay;

use ZigLane\Core\Motion\Event;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Shot\SolvedShot;

/** A stroke that brings the cue ball near where it is wished. */
final readonly class Landing
{
    public function __construct(
        public SolvedShot $shot,
        /** @var list<Rail|Pocket> the cushions on the way in order, and jaws by their pockets */
        public array $route,
        /** How far from there the cue ball stops when nothing goes wrong, metres (LandingTarget::off). */
        public float $off,
        /** Chance of the pot, and of the pot with a stop that the target holds; from trials, 0 where none were made. */
        public float $made = 0.0,
        public float $there = 0.0,
        /** Chance that there is neither a scratch nor another ball struck, whether the ball is potted or not. */
        public float $clear = 0.0,
    ) {
    }

    /** @return list<Rail|Pocket> */
    public static function routeOf(SolvedShot $shot): array
    {
        return array_values(array_filter(array_map(
            static fn (Event $event): Rail|Pocket|null => $event->rail ?? $event->pocket,
            $shot->cushions(),
        )));
    }

    /**
     * A key that routes with the same cushions share.
     *
     * @param list<Rail|Pocket> $route
     */
    public static function keyOf(array $route): string
    {
        return implode(' ', array_map(static fn (Rail|Pocket $surface): string => $surface->value, $route));
    }
}
