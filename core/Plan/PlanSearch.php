<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\Internal\CandidateFinder;
use ZigLane\Core\Plan\Internal\PlanAssembler;
use ZigLane\Core\Plan\Internal\Policies;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;

/**
 * The search for a run-out plan, in pieces that may be done in any order and on several workers: the candidates (ways to begin), then
 * blocks of replays of each as the ReplaySchedule has them due. The same seed and the same number of blocks give the same plan.
 */
final class PlanSearch
{
    /** More balls than these are many. */
    private const MANY = 9;
    /** First plans of many balls: ways kept for each, and balls of the sequence that may be shot next; the next where one finds nothing. */
    private const QUICK = [[1, 2], [2, 3]];

    /** Rounds of replays of the later legs of a plan beside the best. */
    private const BESIDE = 2;

    private readonly Policies $policies;
    private readonly ShotSolver $solver;

    /** @var list<Candidate>|null */
    private ?array $candidates = null;

    public function __construct(
        public readonly Rack $rack,
        PlanConstraints $constraints = new PlanConstraints(),
        Weights $weights = new Weights(),
        private readonly int $seed = 1,
    ) {
        $this->policies = new Policies($rack, $constraints, $weights);
        $this->solver = new ShotSolver($rack->equipment);
    }

    /**
     * A complete plan as soon as there is one, by the planner's reckoning alone; where nothing goes straight with the ways to begin, null
     * where there are none.
     */
    public function first(): ?Plan
    {
        // Of many balls only the best ways of each are surveyed, and balls are shot about in turn: a few of the sets that the search goes
        // through.
        foreach (\count($this->rack->objectBalls()) > self::MANY ? self::QUICK : [] as [$kept, $window]) {
            $quicker = $this->policies->quicker($kept, $window);
            $plan = $this->soonest($quicker, $window > 2);
            $this->policies->learn($quicker);
            if (null !== $plan) {
                return $plan;
            }
        }
        $plan = $this->soonest($this->policies, true);
        $candidate = null === $plan ? $this->candidates()[0] ?? null : null;

        return null === $candidate
            ? $plan
            : (new PlanAssembler($this->rack, $this->policies, $this->seed))->plan($candidate, new Tally(), isQuick: true)[0];
    }

    private function soonest(Policies $policies, bool $isAnywhere): ?Plan
    {
        $candidate = (new CandidateFinder($this->rack, $policies, $this->seed))->soonest($isAnywhere);

        return null === $candidate
            ? null
            : (new PlanAssembler($this->rack, $policies, $this->seed))->plan($candidate, new Tally(), isQuick: true)[0];
    }

    /** Why a rack cannot be planned, before anything is looked for; null where it can. */
    public static function refusal(Rack $rack): ?NothingToPlan
    {
        $money = $rack->game->rules()->moneyBall;

        return match (true) {
            !$rack->layout->has(Ball::Cue) && BallInHand::None === $rack->ballInHand => NothingToPlan::noCueBall(),
            null !== $money && !$rack->layout->has($money) => NothingToPlan::noMoneyBall($money),
            [] === $rack->objectBalls() => NothingToPlan::onTheTable(),
            default => null,
        };
    }

    /** Why there is no plan, when there are no candidates: with the legal hits that there are. */
    public function nothing(): NothingToPlan
    {
        $refusal = self::refusal($this->rack);
        if (null !== $refusal) {
            return $refusal;
        }
        $hits = array_map(static fn (LegalHit $hit): Fact => $hit->fact(), LegalHits::of($this->rack, seed: $this->seed));

        return [] === $hits ? NothingToPlan::onTheTable() : NothingToPlan::but($hits);
    }

    /**
     * @param Deadline|null $until after which no more ways are looked for; null: all are
     *
     * @return list<Candidate> the best first by the planner's reckoning; empty where there is nothing to play
     */
    public function candidates(?Deadline $until = null): array
    {
        return $this->candidates ??= (new CandidateFinder($this->rack, $this->policies, $this->seed, $until))->find();
    }

    /** Who chooses every shot of the replays. */
    public function chooser(?Group $group): Chooser
    {
        return $this->policies->of($group);
    }

    /** What is to be made, and in which order. */
    public function order(?Group $group): Order
    {
        return $this->policies->of($group)->values->order;
    }

    /** Shots that were simulated so far, but for what the odds of legs and indirect shots took. */
    public function simulated(): int
    {
        return $this->policies->simulated() + $this->solver->simulator->shots();
    }

    /** @return list<float> of the first shot of each candidate, by which equals are told apart */
    public function fuss(): array
    {
        return array_map(static fn (Candidate $candidate): float => $candidate->option->fuss, $this->candidates());
    }

    /**
     * A block of replays of a candidate; the same number always gives the same replays.
     *
     * @param Deadline|null        $until ends it before all are played, but for the first
     * @param ExecutionErrors|null $by    who plays it, choosing as the rack's player would; null: that one
     */
    public function block(Candidate $candidate, int $block, ?Deadline $until = null, ?ExecutionErrors $by = null): Tally
    {
        $chooser = $this->chooser($candidate->group);
        $rack = null === $by ? $this->rack : $this->rack->withPlayer($by);
        $player = new RackPlayer($this->solver, $rack, $this->order($candidate->group));
        $tally = new Tally();
        for ($i = 0; $i < ReplaySchedule::BLOCK; ++$i) {
            $seed = ($this->seed * 7919 + $block * ReplaySchedule::BLOCK + $i) & 0x7FFFFFFF;
            $player->play($tally, $chooser, $candidate->layout, $seed, $candidate->option);
            if (null !== $until && $until->isOver()) {
                break;
            }
        }

        return $tally;
    }

    /**
     * The best candidates as plans, the best first.
     *
     * @param list<array<int, Tally>> $done    by candidate and block
     * @param (\Closure(): bool)|null $hasTime asked before each plan but the best is written; null: there is time for all
     * @param int|null                $rounds  of replays of later legs, at the most; null: as many as are worth it
     * @param bool                    $isWhole the best plan is written with all its reasons, misses and finishes whatever the time
     *
     * @return list<Plan> none where there is nothing to play
     */
    public function written(array $done, int $most, ?\Closure $hasTime = null, ?int $rounds = null, bool $isWhole = false): array
    {
        $candidates = $this->candidates();
        $fuss = $this->fuss();
        $assembler = new PlanAssembler($this->rack, $this->policies, $this->seed);
        $plans = $shots = [];
        $shown = ReplaySchedule::shown($done, $most, $fuss);
        foreach ($shown as $place => $candidate) {
            if ($place > 0 && null !== $hasTime && !$hasTime()) {
                break;
            }
            $time = $isWhole && 0 === $place ? null : $hasTime;
            [$plans[], $shots[]] = $assembler->plan($candidates[$candidate], ReplaySchedule::stated($done[$candidate]), false, $time);
        }
        // What time is left is for the chances of the later legs, of the best plan first.
        foreach ($plans as $place => $plan) {
            $tallies = $assembler->replays(
                $candidates[$shown[$place]],
                $shots[$place],
                $hasTime,
                $rounds ?? (0 === $place ? null : self::BESIDE),
                $isWhole && 0 === $place ? self::BESIDE : 0,
            );
            $plans[$place] = $plan->withRuns($tallies);
        }

        return PlanDifference::told($plans);
    }
}
