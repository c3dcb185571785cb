<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\PositionPlay\Lane;
use ZigLane\Core\PositionPlay\ZoneLevel;
use ZigLane\Core\Shot\CushionPoint;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Table\Spot;

/** One shot of a plan, with its odds from simulated tries and the reasons for it: all that a plan file keeps of it. */
final readonly class Leg
{
    /**
     * @param int                $number    from 1
     * @param Layout             $before    the balls before the shot, with the cue ball
     * @param float              $direction of the cue, radians
     * @param float|null         $cut       degrees; null where the cue is aimed by hand and no ball is met on a line to the pocket
     * @param Spot|null          $ghost     where the cue ball is to meet the ball; null likewise
     * @param list<CushionPoint> $cushions  of the cue ball when nothing goes wrong
     * @param Spot|null          $landing   where it then stops; null if it drops. The next leg begins where it typically stops (Typical).
     * @param float|null         $make      chance that the ball is made; null in a file that does not hold it
     * @param float|null         $position  chance that it is made and the cue ball then lies in the zone of the next ball; of the last leg:
     *                                      made without a scratch
     * @param float|null         $goOn      chance that the player shoots again or has won by it: made, and no scratch, no foul, nothing
     *                                      that ends the turn; null in a file that does not hold it
     * @param float|null         $runOut    chance to finish from this leg as drawn, of replays that begin with it; null before any was
     *                                      played
     * @param int                $replays   how many
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
        public ?float $cut,
        public ?Spot $ghost,
        public array $cushions,
        public ?Spot $landing,
        public ?float $make,
        public ?float $position,
        public ?float $goOn,
        public ?float $runOut,
        public int $replays,
        public Risks $risks,
        public ?MissLeave $misses,
        public array $zone,
        public ?Lane $lane,
        public array $reasons,
    ) {
    }

    /** With the chance to finish from this leg, of so many replays. */
    public function withRun(float $runOut, int $replays): self
    {
        return new self(
            $this->number,
            $this->choice,
            $this->before,
            $this->direction,
            $this->cut,
            $this->ghost,
            $this->cushions,
            $this->landing,
            $this->make,
            $this->position,
            $this->goOn,
            $runOut,
            $replays,
            $this->risks,
            $this->misses,
            $this->zone,
            $this->lane,
            $this->reasons,
        );
    }

    /** What is to be played, without what came of one player's tries of it. */
    public function withoutOdds(): self
    {
        return new self(
            $this->number,
            $this->choice,
            $this->before,
            $this->direction,
            $this->cut,
            $this->ghost,
            $this->cushions,
            $this->landing,
            make: null,
            position: null,
            goOn: null,
            runOut: null,
            replays: 0,
            risks: new Risks(),
            misses: null,
            zone: \array_slice($this->zone, 0, 1),
            lane: $this->lane,
            reasons: [],
        );
    }
}
