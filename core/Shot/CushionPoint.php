<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Table\Spot;

/** Where the cue ball meets a rail: the thing to aim for on the way. */
final readonly class CushionPoint
{
    /** @param Spot $at the cue ball's centre then */
    public function __construct(public Rail $rail, public Spot $at)
    {
    }

    /** Place along the rail, metres from the head rail or, on a short rail, from the right rail. */
    public function along(): float
    {
        return $this->rail->isShort() ? $this->at->y : $this->at->x;
    }

    /** @return list<self> those of a shot, in order; jaws are left out */
    public static function of(SolvedShot $shot): array
    {
        $points = [];
        foreach ($shot->cushions() as $event) {
            if (EventKind::Cushion === $event->kind && null !== $event->rail) {
                $points[] = new self($event->rail, $event->at);
            }
        }

        return $points;
    }
}
