<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\PositionPlay\Lane;
use ZigLane\Core\PositionPlay\ZoneLevel;
use ZigLane\Core\Shot\CushionPoint;
use ZigLane\Core\Shot\ShotChoice;

/** One shot of a plan, with its odds from simulated tries and the reasons for it: all that a plan file keeps of it. */
final readonly class Leg
{
    /**
     * @param int                $number    from 1
     * @param Layout             $before    the balls before the shot, with the cue ball
     * @param float              $direction of the cue, radians
     * @param float              $cut       degrees
     * @param Spot               $ghost     where the cue ball is to meet the ball
     * @param list<CushionPoint> $cushions  of the cue ball when nothing goes wrong
     * @param Spot|null          $landing   where it then stops; null if it drops
     * @param float|null         $make      chance that the ball is made; null in a file that does not hold it
     * @param float|null         $position  chance that it is made and the cue ball then lies in the zone of the next ball; of the last leg:
     *                                      made without a scratch
     * @param float|null         $runOut    chance to finish of the replays that came to this leg; null before any did
     * @param MissLeave|null     $misses    what the misses of the tries leave; null where that was not looked at
     * @param list<ZoneLevel>    $zone      of the next ball, from Plan::ZONE on in darker and darker parts; empty for the last leg
     * @param Lane|null          $lane      null for the last leg, or where the shot as meant does not land in the zone
     * @param list<Fact>         $reasons   computed from this plan
     */
    public function __construct(
        public int $number,
        public ShotChoice $choice,
        public Layout $before,
        public float $direction,
        public float $cut,
        public Spot $ghost,
        public array $cushions,
        public ?Spot $landing,
        public ?float $make,
        public ?float $position,
        public ?float $runOut,
        public Risks $risks,
        public ?MissLeave $misses,
        public array $zone,
        public ?Lane $lane,
        public array $reasons,
    ) {
    }
}
