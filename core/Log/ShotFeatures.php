<?php

declare(strict_types=1);

namespace ZigLane\Core\Log;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Shot\GhostBall;

/** What kind of shot a logged one was, by its numbers: what a log is sorted and judged by. */
final readonly class ShotFeatures
{
    /** A ball this near to a cushion is on it, metres beyond its radius. */
    private const ON_RAIL = 0.01;

    /**
     * @param float|null $distance from the cue ball to the ghost ball, metres
     * @param float|null $cut      degrees, positive to the left
     * @param float|null $speed    meant, m/s
     * @param bool       $isOnRail the object ball lay against a cushion
     */
    private function __construct(
        public ?float $distance,
        public ?float $cut,
        public ?float $speed,
        public bool $isOnRail,
    ) {
    }

    public static function of(LoggedShot $shot): self
    {
        $before = $shot->before;
        $speed = $shot->meant?->speed;
        if (null === $shot->ball || null === $shot->pocket || !$before->has($shot->ball) || !$before->has(Ball::Cue)) {
            return new self(null, null, $speed, false);
        }
        $at = $before->spot($shot->ball);
        $table = $shot->equipment->table;
        $near = min($at->x, $at->y, $table->length - $at->x, $table->width() - $at->y) - $shot->equipment->balls->radius;
        $isOnRail = $near < self::ON_RAIL;
        try {
            $pocket = $shot->equipment->geometry->at($shot->pocket);
            $ghost = GhostBall::of($before->spot(Ball::Cue), $at, $pocket, $shot->equipment->balls, $shot->ball);
        } catch (CoreError) {
            // No straight way: a bank, a kick.
            return new self($before->spot(Ball::Cue)->distanceTo($at), null, $speed, $isOnRail);
        }

        return new self($ghost->distance, $ghost->cutsLeft ? $ghost->cutDegrees : -$ghost->cutDegrees, $speed, $isOnRail);
    }
}
