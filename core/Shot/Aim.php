<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Position\Angle;

/**
 * Where the cue points so that, with throw, squirt and swerve, the object ball goes to the middle of the pocket; and how far
 * that is from the ghost-ball line, positive to the left.
 */
final readonly class Aim
{
    public function __construct(
        public GhostBall $ghost,
        /** Direction of the cue, radians. */
        public float $direction,
    ) {
    }

    /** Angle from the ghost-ball line to the cue's, degrees, positive to the left. */
    public function offsetDegrees(): float
    {
        return rad2deg(Angle::wrapped($this->direction - $this->ghost->direction));
    }

    /** The same as a distance at the ghost ball, metres, positive to the left. */
    public function offset(): float
    {
        return $this->ghost->distance * tan(deg2rad($this->offsetDegrees()));
    }

    /** Whether the cue points to a fuller hit than the ghost ball's. */
    public function isFuller(): bool
    {
        return $this->ghost->cutsLeft === $this->offsetDegrees() > 0;
    }
}
