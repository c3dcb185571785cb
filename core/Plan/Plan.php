<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Table\Spot;

/** A run-out as planned: its legs, how often it is finished when it is replayed with errors, and where it ends when it is not. */
final readonly class Plan
{
    /** Odds below which a plan says that running out is not likely. */
    public const POOR = 0.15;
    /** Odds of the next pot that count as in its zone, and those from which it is drawn darker. */
    public const ZONE = 0.6;
    public const DARKER = [0.8, 0.9];

    /**
     * @param Rack       $rack    the rack that it answers, without a cue ball when that is in hand
     * @param Spot|null  $place   where the cue ball is placed, with ball in hand
     * @param Group|null $group   that is played on an open table
     * @param list<Leg>  $legs
     * @param Fact|null  $end     why the legs stop before the rack is run; null if they do not
     * @param Tally      $replays from the first leg on, planned again after every shot
     * @param Fact|null  $differs what this plan does otherwise than the plans beside it; null where that is not told
     */
    public function __construct(
        public Rack $rack,
        public ?Spot $place,
        public ?Group $group,
        public array $legs,
        public ?Fact $end,
        public Tally $replays,
        public ?Fact $differs = null,
    ) {
    }

    /** The run for whoever plays it, without one player's errors and all that was counted with them. */
    public function withoutPlayer(): self
    {
        return new self(
            $this->rack->withPlayer(new ExecutionErrors()),
            $this->place,
            $this->group,
            array_map(static fn (Leg $leg): Leg => $leg->withoutOdds(), $this->legs),
            $this->end,
            new Tally(),
        );
    }

    public function isPoor(): bool
    {
        return $this->replays->tries > 0 && $this->replays->chance() < self::POOR;
    }

    /** The rack as it is played: with the cue ball placed where that was in hand. */
    public function placed(): Rack
    {
        return null === $this->place || $this->rack->layout->has(Ball::Cue)
            ? $this->rack
            : $this->rack->inHand(BallInHand::None)->withBall(Ball::Cue, $this->place);
    }

    /** @return list<ShotChoice> */
    public function choices(): array
    {
        return array_map(static fn (Leg $leg): ShotChoice => $leg->choice, $this->legs);
    }

    /** @param list<Tally> $runs replays that begin with the second leg and on; those without tries say nothing */
    public function withRuns(array $runs): self
    {
        $legs = $this->legs;
        foreach ($runs as $i => $replays) {
            if ($replays->tries > 0 && isset($legs[$i + 1])) {
                $legs[$i + 1] = $legs[$i + 1]->withRun($replays->chance(), $replays->tries);
            }
        }

        return new self($this->rack, $this->place, $this->group, $legs, $this->end, $this->replays, $this->differs);
    }

    public function withDifference(?Fact $differs): self
    {
        return new self($this->rack, $this->place, $this->group, $this->legs, $this->end, $this->replays, $differs);
    }
}
