<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;

/** What a position is worth to its shooter, and what one stroke from it is, by replays with the same errors. */
final class ShotValues
{
    private readonly Planning $planning;

    /** @var array{Tally, ShotChoice}|null */
    private ?array $best = null;

    /**
     * @param Rack  $rack    before the shot
     * @param float $seconds for the search; at the least one block of replays is played
     */
    public function __construct(private readonly Rack $rack, float $seconds, private readonly int $seed = 1)
    {
        $end = Deadline::in($seconds);
        $this->planning = new Planning($rack, seed: $seed, found: $end->at(0.4));
        $until = $end->at(1.0);
        // Ends: with its time, or when all replays are played.
        for ($block = 0; (0 === $block || !$until->isOver()) && $this->planning->step(); ++$block) {
        }
        $this->best = $this->planning->best();
    }

    /**
     * The best that was found, by replays that did not choose it, and its first shot.
     *
     * @return array{Tally, ShotChoice}|null null where there is nothing to play
     */
    public function best(): ?array
    {
        return $this->best;
    }

    /**
     * A stroke from there, played on as a plan would be: as many replays as the best one has, with the same errors.
     *
     * @throws CoreError If it cannot be played
     */
    public function of(ShotChoice $choice, int $most = 200): Tally
    {
        $shot = (new ShotSolver($this->rack->equipment))->aimed($this->rack->layout, $choice);
        $group = $this->planning->candidates()[0]->group ?? $this->rack->group;
        $candidate = new Candidate($this->rack->layout, Option::of($shot, 0.0), null, $group);
        $tallies = [];
        $tries = 0;
        $wanted = min($most, $this->best[0]->tries ?? ReplaySchedule::BLOCK);
        for ($block = 0; $tries < $wanted; ++$block) {
            if (!ReplaySchedule::chooses($block)) {
                $tallies[] = $this->planning->search->block($candidate, $block);
                $tries += ReplaySchedule::BLOCK;
            }
        }

        return Tally::sum($tallies);
    }

    /** What the shot cost that was meant, if this came of it. */
    public function cost(?ShotChoice $choice, float $after): ?ShotCost
    {
        if (null === $this->best) {
            return null;
        }
        [$best, $first] = $this->best;
        try {
            $chosen = null === $choice ? null : $this->of($choice);
        } catch (CoreError) {
            $chosen = null;
        }
        if (null === $chosen) {
            // Nothing is known of the stroke: all is told as execution.
            return new ShotCost($best->score(), $best->score(), $after, 0.0);
        }
        $isOther = null !== $choice && ($choice->ball !== $first->ball || $choice->pocket !== $first->pocket
            || abs($choice->stroke->speed / $first->stroke->speed - 1) > 0.2);

        return new ShotCost(
            $best->score(),
            $chosen->score(),
            $after,
            hypot($best->error(), $chosen->error()),
            $isOther ? $first : null,
        );
    }
}
