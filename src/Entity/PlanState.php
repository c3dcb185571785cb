<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

/** How far a plan job is. */
enum PlanState: string
{
    /** In the queue; no worker has begun. */
    case Waiting = 'waiting';
    case Working = 'working';
    /** A person has asked to stop: the best so far will be written down. */
    case Stopping = 'stopping';
    /** One worker composes the plans from what was found. */
    case Writing = 'writing';
    case Done = 'done';
    /** There was nothing to plan; `message` says why. */
    case Nothing = 'nothing';

    public function isOver(): bool
    {
        return self::Done === $this || self::Nothing === $this;
    }
}
