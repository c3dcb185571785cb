<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;

/** A search for a plan from its first step to its last, in one process: stopped between any two steps, the best so far stands. */
final class Planning
{
    /** Plans that are given side by side. */
    private const PLANS = 5;

    /** Shares of the time: ways to begin are looked for, and replays played, until then; what is left is for writing. */
    private const FOUND = 0.5;
    private const SEARCHED = 0.6;
    /** Writing a leg takes so long at the least, seconds; and the share that is searched at the least. */
    private const LEG = 0.2;
    private const LEAST = 0.3;

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
        ?Deadline $found = null,
    ) {
        $this->search = new PlanSearch($rack, $constraints, $weights, $seed);
        $this->candidates = $this->search->candidates($found);
        $this->done = array_map(static fn (): array => [], $this->candidates);
    }

    /**
     * The plans that a time allows; where it allows no more, the first plan that there is. The same seed and number of blocks give the same
     * plans as long as the time does not end the search.
     *
     * @param int $blocks of replays at the most
     *
     * @return array{list<Plan>, PlanSearch} the best first; none where there is nothing to play
     */
    public static function within(Rack $rack, float $seconds, int $seed = 1, int $blocks = \PHP_INT_MAX): array
    {
        $end = Deadline::in($seconds);
        $searched = max(self::LEAST, min(self::SEARCHED, 1 - self::LEG * \count($rack->objectBalls()) / $seconds));
        $planning = new self($rack, seed: $seed, found: $end->at(self::FOUND / self::SEARCHED * $searched));
        $searched = $end->at($searched);
        // One replay at the least, or there would be no odds to state.
        for ($block = 0; $block < $blocks && (0 === $block || !$searched->isOver()) && $planning->step($searched); ++$block) {
        }
        $plans = $planning->plans(static fn (): bool => !$end->isOver());

        return [$plans, $planning->search];
    }

    /**
     * One block of replays more; false when there is nothing left to do.
     *
     * @param Deadline|null $until ends the block before all of its replays are played
     */
    public function step(?Deadline $until = null): bool
    {
        $due = ReplaySchedule::due($this->done, $this->search->fuss());
        if ([] === $due) {
            return false;
        }
        [$candidate, $block] = $due[0];
        $this->done[$candidate][$block] = $this->search->block($this->candidates[$candidate], $block, $until);

        return true;
    }

    /** @return list<Candidate> the ways to begin */
    public function candidates(): array
    {
        return $this->candidates;
    }

    /**
     * The best so far without its legs: its replays that did not choose it, and its first shot.
     *
     * @return array{Tally, ShotChoice}|null null where there is nothing to play
     */
    public function best(): ?array
    {
        $best = ReplaySchedule::shown($this->done, 1, $this->search->fuss())[0] ?? null;

        return null === $best ? null : [ReplaySchedule::stated($this->done[$best]), $this->candidates[$best]->option->choice];
    }

    /**
     * The best so far, the best first, each leg by leg.
     *
     * @param (\Closure(): bool)|null $hasTime asked before each plan but the best is written; null: there is time for all
     * @param int                     $most    plans
     * @param int|null                $rounds  of replays of later legs, at the most; null: as many as are worth it
     *
     * @return list<Plan> none where there is nothing to play
     */
    public function plans(?\Closure $hasTime = null, int $most = self::PLANS, ?int $rounds = null): array
    {
        return $this->search->written($this->done, $most, $hasTime, $rounds);
    }
}
