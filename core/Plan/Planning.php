<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Rules\Rack;

/** A search for a plan from its first step to its last, in one process: stopped between any two steps, the best so far stands. */
final class Planning
{
    /** Plans that are given side by side. */
    private const PLANS = 5;

    public readonly PlanSearch $search;

    /** @var list<Candidate> */
    private readonly array $candidates;

    /** @var list<array<int, Tally>> by candidate and block */
    private array $done;

    public function __construct(
        Rack $rack,
        PlanConstraints $constraints = new PlanConstraints(),
        Weights $weights = new Weights(),
        int $seed = 1,
    ) {
        $this->search = new PlanSearch($rack, $constraints, $weights, $seed);
        $this->candidates = $this->search->candidates();
        $this->done = array_map(static fn (): array => [], $this->candidates);
    }

    /** One block of replays more; false when there is nothing left to do. */
    public function step(): bool
    {
        $due = ReplaySchedule::due($this->done);
        if ([] === $due) {
            return false;
        }
        [$candidate, $block] = $due[0];
        $this->done[$candidate][$block] = $this->search->block($this->candidates[$candidate], $block);

        return true;
    }

    /**
     * The best so far, the best first, each leg by leg.
     *
     * @param (\Closure(): bool)|null $hasTime asked before each plan but the best is written; null: there is time for all
     *
     * @return list<Plan> none where there is nothing to play
     */
    public function plans(?\Closure $hasTime = null): array
    {
        return $this->search->written($this->done, self::PLANS, $hasTime);
    }
}
