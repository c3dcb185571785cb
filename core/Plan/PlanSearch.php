<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Plan\Internal\LegWriter;
use ZigLane\Core\Plan\Internal\PlannerTables;
use ZigLane\Core\Plan\Internal\Policy;
use ZigLane\Core\Plan\Internal\ValueTable;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\PositionPlay\Landing;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;

/**
 * The search for a run-out plan, in pieces that may be done in any order and on several workers: the candidates (ways to begin, from the
 * values of the grid, tried in full and polished), then blocks of replays of each. Which blocks are due depends on the blocks that
 * are done and on nothing else, so the same seed and the same number of blocks give the same plan.
 *
 * Fewer and fewer candidates get more and more replays (successive halving; Karnin, Koren and Somekh, ICML 2013).
 */
final class PlanSearch
{
    /** Replays in a block. */
    public const BLOCK = 20;
    /** Stages: how many of the candidates are kept, and how many blocks each has had at the end. */
    private const STAGES = [[6, 2], [4, 5], [2, 12], [1, 40]];
    /** Candidates that are kept after polishing, and options that are tried before. */
    private const CANDIDATES = 6;
    private const OPTIONS = 16;
    private const TRIES = 24;
    /** Places of the cue ball that are looked at with ball in hand. */
    private const PLACES = 10;
    private const POLISHED = 3;
    /** Step of the direction in which indirect shots are looked for, degrees. */
    private const TURN = 0.25;
    /** More balls than these are many. */
    private const MANY = 9;
    /** First plans of many balls: ways kept for each, and balls of the sequence that may be shot next; the next where one finds nothing. */
    private const QUICK = [[1, 2], [2, 3]];
    /** Legs at the most. */
    private const LEGS = 16;

    /** @var array<string, Policy> by group */
    private array $policies = [];

    /** @var list<Candidate>|null */
    private ?array $candidates = null;

    /** @var array<string, PlannerTables> of a quicker search, by group */
    private array $known = [];

    /**
     * @param int $kept   ways into a pocket that are kept for a ball
     * @param int $window where there is a sequence: how many of the next balls may change places; 0: as many as can be afforded
     */
    public function __construct(public readonly Rack $rack, private readonly PlanConstraints $constraints = new PlanConstraints(), private readonly Weights $weights = new Weights(), private readonly int $seed = 1, private readonly int $kept = PlannerTables::KEPT, private readonly int $window = 0)
    {
    }

    /** Blocks in all stages together. */
    public static function blocks(int $candidates): int
    {
        $sum = 0;
        $had = 0;
        foreach (self::STAGES as [$keep, $blocks]) {
            $sum += min($keep, $candidates) * ($blocks - $had);
            $had = $blocks;
        }

        return $sum;
    }

    /** A complete plan as soon as there is one, by the planner's reckoning alone; where nothing goes straight with the ways to begin, null where there are none. */
    public function first(): ?Plan
    {
        // Of many balls only the best ways of each are surveyed, and balls are shot about in turn: a few of the sets that the search goes through.
        foreach (\count($this->rack->objectBalls()) > self::MANY ? self::QUICK : [] as [$kept, $window]) {
            $quick = new self($this->rack, $this->constraints, $this->weights, $this->seed, $kept, $window);
            $quick->known = $this->known;
            $plan = $quick->soonest($window > 2);
            foreach ($quick->policies as $group => $policy) {
                $this->known[$group] = $policy->values->tables;
            }
            if (null !== $plan) {
                return $plan;
            }
        }

        $plan = $this->soonest();
        $candidate = null === $plan ? $this->candidates()[0] ?? null : null;

        return null === $candidate ? $plan : $this->plan($candidate, new Replays(), isQuick: true);
    }

    /** @param bool $isAnywhere whether a sequence of balls may begin with any of them */
    private function soonest(bool $isAnywhere = true): ?Plan
    {
        foreach ($this->groups() as $group) {
            foreach ($this->places($group) as [$place, $layout]) {
                $policy = $this->policy($group);
                $option = $policy->options($layout, self::POLISHED, self::POLISHED, $this->seed)[0] ?? null;
                if ($isAnywhere && 0.0 === ($option->value ?? 0.0)) {
                    $option = $policy->elsewhere($layout, $this->seed);
                }
                if (null !== $option && $option->value > 0.0) {
                    return $this->plan(new Candidate($layout, $option, $place, $group), new Replays(), isQuick: true);
                }
            }
        }

        return null;
    }

    /** @return list<Candidate> the best first by the planner's reckoning; empty where there is nothing to play */
    public function candidates(): array
    {
        if (null !== $this->candidates) {
            return $this->candidates;
        }
        $all = [];
        foreach ($this->groups() as $group) {
            foreach ($this->places($group) as [$place, $layout]) {
                $policy = $this->policy($group);
                $options = $policy->options($layout, self::OPTIONS, self::TRIES, $this->seed);
                if (null === $place) {
                    array_push($options, ...$policy->indirect($layout, self::TURN, self::POLISHED, self::TRIES, $this->seed));
                }
                $only = [] === $options ? $policy->next($layout, $this->seed) : null;
                foreach ([...$options, ...(null === $only ? [] : [$only])] as $option) {
                    $all[] = new Candidate($layout, $option, $place, $group);
                }
            }
        }
        $best = [];
        foreach ($this->different($all) as $candidate) {
            $best[] = new Candidate($candidate->layout, $this->policy($candidate->group)->polished($candidate->layout, $candidate->option, self::TRIES, $this->seed, self::POLISHED), $candidate->place, $candidate->group);
        }
        usort($best, static fn (Candidate $a, Candidate $b): int => $b->option->value <=> $a->option->value);

        return $this->candidates = $best;
    }

    /**
     * Those that really differ: another ball, pocket or route; the best of each, and no more than three with the same ball and pocket.
     *
     * @param list<Candidate> $all
     *
     * @return list<Candidate>
     */
    private function different(array $all): array
    {
        usort($all, static fn (Candidate $a, Candidate $b): int => $b->option->value <=> $a->option->value);
        $kept = $pots = [];
        foreach ($all as $candidate) {
            if (self::CANDIDATES === \count($kept) || $candidate->option->value <= 0.0) {
                break;
            }
            $choice = $candidate->option->choice;
            $pot = $candidate->group?->value.$choice->ball->value.$choice->pocket->value;
            $shot = $this->shot($candidate->layout, $candidate->option);
            $key = $pot.(null === $candidate->place ? Landing::routeOf($shot) : '');
            if (!isset($kept[$key]) && ($pots[$pot] ?? 0) < 3) {
                $kept[$key] = $candidate;
                $pots[$pot] = ($pots[$pot] ?? 0) + 1;
            }
        }

        return array_values($kept);
    }

    private function shot(Layout $layout, Option $option): SolvedShot
    {
        return (new ShotSolver($this->rack->equipment))->solve($layout, $option->choice);
    }

    /** @return list<Group|null> */
    private function groups(): array
    {
        if (Game::EightBall !== $this->rack->game) {
            return [null];
        }

        return null === $this->rack->group || Group::Open === $this->rack->group ? [Group::Solids, Group::Stripes] : [$this->rack->group];
    }

    /**
     * Where the cue ball lies, or the most promising places for it with ball in hand.
     *
     * @return list<array{Spot|null, Layout}>
     */
    private function places(?Group $group): array
    {
        if ($this->rack->layout->has(Ball::Cue)) {
            return [[null, $this->rack->layout]];
        }
        if (BallInHand::None === $this->rack->ballInHand) {
            return [];
        }
        $places = [];
        $headString = BallInHand::Kitchen === $this->rack->ballInHand ? 2 * $this->rack->equipment->table->diamond() : \INF;
        foreach ($this->policy($group)->values->bestSpots(self::PLACES * 3, $headString) as $spot) {
            try {
                $places[] = [$spot, $this->rack->withBall(Ball::Cue, $spot)->layout];
            } catch (CoreError) {
                continue;
            }
            if (self::PLACES === \count($places)) {
                break;
            }
        }

        return $places;
    }

    public function policy(?Group $group): Policy
    {
        return $this->policies[$group->value ?? ''] ??= new Policy(new ValueTable($this->tables($group), $this->constraints, isRough: $this->window > 0), $group, $this->weights);
    }

    private function tables(?Group $group): PlannerTables
    {
        $known = $this->known[$group->value ?? ''] ?? null;

        return null === $known ? PlannerTables::of($this->rack, $this->order($group), $this->kept) : $known->keeping($this->kept, $this->order($group));
    }

    private function order(?Group $group): Order
    {
        if ($this->window > 0 && null !== $group) {
            $own = array_values(array_filter($this->rack->objectBalls(), $group->has(...)));

            return [] === $own ? Order::of($this->rack->game, $group, $this->constraints->before) : Order::aboutInTurn(StraightRun::neighbours($this->rack, $this->rack->layout, $own), Ball::Eight, $this->constraints->before, $this->window);
        }

        return Game::StraightPool === $this->rack->game
            ? StraightRun::order($this->rack, $this->constraints->before, $this->window)
            : Order::of($this->rack->game, $group, $this->constraints->before);
    }

    /** Shots that were simulated so far, but for what the odds of legs and indirect shots took. */
    public function simulated(): int
    {
        $shots = [];
        // Tables that know of each other have one simulator.
        foreach ($this->known as $tables) {
            $shots[spl_object_id($tables->solver->simulator)] = $tables->solver->simulator->shots();
        }
        foreach ($this->policies as $policy) {
            $shots[spl_object_id($policy->values->tables->solver)] = $policy->values->tables->solver->simulator->shots();
        }

        return array_sum($shots);
    }

    /** A block of replays of a candidate; the same number always gives the same replays. */
    public function block(Candidate $candidate, int $block): Replays
    {
        $policy = $this->policy($candidate->group);
        $replays = new Replays();
        for ($i = 0; $i < self::BLOCK; ++$i) {
            $seed = ($this->seed * 7919 + $block * self::BLOCK + $i) & 0x7FFFFFFF;
            $replays->play($policy, $policy->values->tables->solver, $this->rack, $candidate->group, $policy->values->order, $candidate->layout, $seed, $candidate->option);
        }

        return $replays;
    }

    /**
     * The blocks that are due now, in order; none when the search is done.
     *
     * @param list<array<int, Replays>> $done by candidate and block
     *
     * @return list<array{int, int}> candidate and block
     */
    public static function due(array $done): array
    {
        $had = 0;
        foreach (self::STAGES as [$keep, $blocks]) {
            $due = [];
            foreach (\array_slice(self::ranking($done, $had), 0, $keep) as $candidate) {
                for ($block = $had; $block < $blocks; ++$block) {
                    if (!isset($done[$candidate][$block])) {
                        $due[] = [$candidate, $block];
                    }
                }
            }
            if ([] !== $due) {
                return $due;
            }
            $had = $blocks;
        }

        return [];
    }

    /**
     * The candidates by what their first blocks gave, the best first; as they were found where none is done.
     *
     * @param list<array<int, Replays>> $done
     *
     * @return list<int>
     */
    private static function ranking(array $done, int $blocks): array
    {
        $order = array_keys($done);
        $chance = static fn (int $candidate): float => self::total(array_filter($done[$candidate], static fn (int $block): bool => $block < $blocks, \ARRAY_FILTER_USE_KEY))->chance();
        if ($blocks > 0) {
            // Those that had all of these blocks come before those that were dropped earlier.
            $rank = array_map(static fn (int $candidate): array => [\count(array_filter(array_keys($done[$candidate]), static fn (int $block): bool => $block < $blocks)), $chance($candidate), -$candidate], $order);
            usort($order, static fn (int $a, int $b): int => $rank[$b] <=> $rank[$a]);
        }

        return $order;
    }

    /**
     * The candidates as all replays rank them now, the best first: by the chance that each has at the least (at 95 percent), so that few lucky
     * replays do not outdo many.
     *
     * @param list<array<int, Replays>> $done
     *
     * @return list<int>
     */
    public static function best(array $done): array
    {
        $least = array_map(static fn (array $blocks): float => self::total($blocks)->interval()[0], $done);
        $order = array_keys($done);
        usort($order, static fn (int $a, int $b): int => [$least[$b], $a] <=> [$least[$a], $b]);

        return $order;
    }

    /**
     * The candidates to be shown side by side: the best of those that were replayed; before any was, the first as it was found.
     *
     * @param list<array<int, Replays>> $done
     *
     * @return list<int>
     */
    public static function shown(array $done, int $most): array
    {
        $best = self::best($done);
        $replayed = array_values(array_filter($best, static fn (int $candidate): bool => [] !== $done[$candidate]));

        return \array_slice([] === $replayed ? \array_slice($best, 0, 1) : $replayed, 0, $most);
    }

    /** @param array<int, Replays> $blocks */
    public static function total(array $blocks): Replays
    {
        return array_reduce($blocks, static fn (Replays $sum, Replays $block): Replays => $sum->plus($block), new Replays());
    }

    /**
     * The run of a candidate when nothing goes wrong, leg by leg, with its odds and reasons.
     *
     * @param bool $isQuick strokes are not polished, and there are neither zones nor reasons
     */
    public function plan(Candidate $candidate, Replays $replays, string $differs = '', bool $isQuick = false): Plan
    {
        $policy = $this->policy($candidate->group);
        $order = $policy->values->order;
        $layout = $candidate->layout;
        $option = $candidate->option;
        $shots = [];
        $end = null;
        while (\count($shots) < self::LEGS) {
            try {
                $shot = $this->shot($layout, $option);
                // Few tries chose it: what is shown first should at least go on as it is meant.
                foreach ($isQuick && !$shot->goesOn() ? $policy->options($layout, self::OPTIONS, self::POLISHED, $this->seed) : [] as $other) {
                    $meant = $this->shot($layout, $other);
                    if ($meant->goesOn()) {
                        [$shot, $option] = [$meant, $other];
                        break;
                    }
                }
            } catch (CoreError $e) {
                $end = $e->getMessage();
                break;
            }
            $shots[] = [$shot, $option, $policy];
            $layout = $shot->outcome->final;
            if (!$shot->goesOn() || $order->isOut(Replays::bits($layout))) {
                $end = $shot->goesOn() ? null : 'The last leg does not go on when it is played as meant; its odds come from the tries that do.';
                break;
            }
            $racked = Game::StraightPool === $this->rack->game && $order->isLast(Replays::bits($layout)) ? Racking::again($layout, $this->rack->equipment) : null;
            if (null !== $racked) {
                $break = (new BreakOff($this->rack, $policy->values->tables->solver))->choose($racked, Order::balls(Replays::bits($layout))[0], $this->seed);
                null === $break ? $end = 'The break ball cannot be played into the next rack from there.' : $shots[] = [$this->shot($racked, $break), $break, $policy];
                break;
            }
            $policy = $policy->on($layout);
            $next = $policy->next($layout, $this->seed);
            if (null === $next) {
                $end = 'From there no shot is left that is worth playing.';
                break;
            }
            $option = $isQuick ? $next : $policy->polished($layout, $next, self::TRIES, $this->seed, self::POLISHED);
        }

        return new Plan($this->rack, $candidate->place, $candidate->group, (new LegWriter($this->rack, $isQuick))->legs($shots, $replays), $end, $replays, $differs);
    }

    /**
     * The best candidates as plans, the best first.
     *
     * @param list<array<int, Replays>> $done    by candidate and block
     * @param (\Closure(): bool)|null   $hasTime asked before each plan but the best is written; null: there is time for all
     *
     * @return list<Plan> none where there is nothing to play
     */
    public function written(array $done, int $most, ?\Closure $hasTime = null): array
    {
        $candidates = $this->candidates();
        $plans = [];
        foreach (self::shown($done, $most) as $place => $candidate) {
            if ($place > 0 && null !== $hasTime && !$hasTime()) {
                break;
            }
            $best ??= $candidates[$candidate];
            $plans[] = $this->plan($candidates[$candidate], self::total($done[$candidate]), 0 === $place ? '' : self::difference($candidates[$candidate], $best));
        }

        return $plans;
    }

    /** What a candidate does otherwise than another, in words. */
    public static function difference(Candidate $candidate, Candidate $best): string
    {
        $choice = $candidate->option->choice;
        $other = $best->option->choice;
        $pot = \sprintf('%s in %s', $choice->ball->label(), $choice->pocket->value);

        return match (true) {
            $candidate->group !== $best->group => \sprintf('%s: %s', $candidate->group->value ?? '', $pot),
            $choice->ball !== $other->ball, $choice->pocket !== $other->pocket => $pot,
            null !== $candidate->place => 'the cue ball placed elsewhere',
            default => \sprintf('%s, %s', $pot, $choice->stroke->speed > $other->stroke->speed ? 'harder' : 'softer'),
        };
    }
}
