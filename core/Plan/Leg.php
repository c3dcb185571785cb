<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Position\Spot;
use ZigLane\Core\PositionPlay\Lane;
use ZigLane\Core\Shot\SolvedShot;

/** One shot of a plan, with its odds from simulated tries and the reasons for it. */
final readonly class Leg
{
    /**
     * @param float                                                             $make     chance that the ball is made
     * @param float                                                             $position chance that it is made and the cue ball then lies in the zone of the next ball; of the last leg: made
     *                                                                                    without a scratch
     * @param float|null                                                        $runOut   chance to finish of the replays that came to this leg; null before any did
     * @param array{scratch: float, hook: float, contact: float, miscue: float} $risks    shares of the tries: the cue ball drops; it cannot meet the next ball straight; it
     *                                                                                    strikes another ball; the tip slips off
     * @param MissLeave|null                                                    $misses   what the misses of the tries leave; null where that was not looked at
     * @param list<list<Spot>>                                                  $zone     of the next ball, in small polygons; empty for the last leg
     * @param Lane|null                                                         $lane     null for the last leg, or where the shot as meant does not land in the zone
     * @param list<string>                                                      $reasons  computed from this plan, each a clause
     */
    public function __construct(
        public int $number,
        public SolvedShot $shot,
        public float $make,
        public float $position,
        public ?float $runOut,
        public array $risks,
        public ?MissLeave $misses,
        public array $zone,
        public ?Lane $lane,
        public array $reasons,
    ) {
    }
}
