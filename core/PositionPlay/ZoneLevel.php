<?php

declare(strict_types=1);

namespace ZigLane\Core\PositionPlay;

use ZigLane\Core\Table\Spot;

/** The part of a zone from which the ball goes with at least some odds. */
final readonly class ZoneLevel
{
    /**
     * @param float            $least 0 to 1
     * @param list<list<Spot>> $rings its edges, by the even-odd rule
     */
    public function __construct(public float $least, public array $rings)
    {
    }

    /**
     * @param list<float> $levels rising
     *
     * @return list<self> those that are anywhere
     */
    public static function of(Zone $zone, array $levels): array
    {
        $list = array_map(static fn (float $least): self => new self($least, $zone->rings($least)), $levels);

        return array_values(array_filter($list, static fn (self $level): bool => [] !== $level->rings));
    }

    /** Whether a spot lies in it. */
    public function contains(Spot $spot): bool
    {
        $isInside = false;
        foreach ($this->rings as $ring) {
            $before = $ring[\count($ring) - 1] ?? null;
            foreach ($ring as $corner) {
                if (
                    null !== $before && ($corner->y > $spot->y) !== ($before->y > $spot->y)
                    && $spot->x < ($before->x - $corner->x) * ($spot->y - $corner->y) / ($before->y - $corner->y) + $corner->x
                ) {
                    $isInside = !$isInside;
                }
                $before = $corner;
            }
        }

        return $isInside;
    }
}
