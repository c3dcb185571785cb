<?php

declare(strict_types=1);

namespace ZigLane\Core\PositionPlay;

use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Table\Spot;

/** Anywhere in the zone of the next ball: the spots from which it is potted with at least some odds, in the best of some pockets. */
final readonly class ZoneTarget implements LandingTarget
{
    /**
     * @param non-empty-list<PotModel> $lines of the next ball
     * @param float                    $least odds from which a spot is in the zone, 0 to 1
     */
    public function __construct(private array $lines, public float $least)
    {
    }

    /** Inside, nearer to nought the better the odds; outside more than a metre, so that nothing there counts as close. */
    public function off(Spot $stop): float
    {
        $odds = Zone::best($this->lines, $stop);

        return $odds >= $this->least ? LandingSearch::CLOSE * (1 - $odds) : 1 + $this->least - $odds;
    }

    public function holds(Spot $stop): bool
    {
        foreach ($this->lines as $line) {
            if (Zone::best([$line], $stop) >= $this->least) {
                return true;
            }
        }

        return false;
    }
}
