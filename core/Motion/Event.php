<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Table\Spot;

/**
 * One entry of the record of a shot, `time` in seconds after the strike, `at` the ball's centre. Of two balls that meet,
 * `ball` is the one laid out earlier. `rail` is set on cushion events, `pocket` on jaw and pocket events.
 */
final readonly class Event
{
    public function __construct(
        public float $time,
        public EventKind $kind,
        public Ball $ball,
        public Spot $at,
        public ?Ball $other = null,
        public ?Rail $rail = null,
        public ?Pocket $pocket = null,
    ) {
    }

    public function involves(Ball $ball): bool
    {
        return $this->ball === $ball || $this->other === $ball;
    }
}
