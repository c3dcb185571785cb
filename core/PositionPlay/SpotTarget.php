<?php

declare(strict_types=1);

namespace ZigLane\Core\PositionPlay;

use ZigLane\Core\Table\Spot;

/** One spot, with some room round it. */
final readonly class SpotTarget implements LandingTarget
{
    /** Room that a landing is given when its odds are counted, metres: a diamond's half. */
    public const ROOM = 0.16;

    public function __construct(public Spot $spot)
    {
    }

    public function off(Spot $stop): float
    {
        return $stop->distanceTo($this->spot);
    }

    public function holds(Spot $stop): bool
    {
        return $this->off($stop) <= self::ROOM;
    }
}
