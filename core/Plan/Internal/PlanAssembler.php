<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\BreakOff;
use ZigLane\Core\Plan\Candidate;
use ZigLane\Core\Plan\Option;
use ZigLane\Core\Plan\Order;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Plan\RackPlayer;
use ZigLane\Core\Plan\Tally;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Shot\LegChain;
use ZigLane\Core\Shot\SolvedShot;

/**
 * Makes a plan of a way to begin: the run when nothing goes wrong, each next shot chosen as in the replays, written down leg by leg.
 *
 * @internal
 */
final readonly class PlanAssembler
{
    /** Legs at the most. */
    private const LEGS = 16;
    /** Tries that tell how a leg typically ends; in a first plan. */
    private const TRIES = 60;
    private const QUICK_TRIES = 15;
    /** Replays of every later leg in a round, and rounds. */
    private const ROUND = 4;
    private const ROUNDS = 15;
    /** A break shot, which takes ten times as long, is replayed in every so many rounds. */
    private const BREAKS = 4;
    /** Options that are looked at where the first one does not go on as it is meant. */
    private const OTHERS = 16;
    /** Strokes of which the plainest is looked for in a later leg. */
    private const WAYS = 10;

    public function __construct(private Rack $rack, private Policies $policies, private int $seed)
    {
    }

    /**
     * @param bool                    $isQuick strokes are not polished, and there are neither zones nor reasons
     * @param (\Closure(): bool)|null $hasTime null: there is time for all; where there is none legs are written as in a first plan
     *
     * @return array{Plan, list<PlannedShot>} without the chances of its later legs
     */
    public function plan(Candidate $candidate, Tally $replays, bool $isQuick = false, ?\Closure $hasTime = null): array
    {
        [$shots, $end] = $this->run($candidate, $isQuick, $hasTime);
        $legs = (new LegWriter($this->rack, $this->seed, $isQuick))->legs($shots, $replays, $hasTime);

        return [new Plan($this->rack, $candidate->place, $candidate->group, $legs, $end, $replays), $shots];
    }

    /**
     * Replays that begin with a later leg as it is drawn: the chance to finish from there.
     *
     * @param list<PlannedShot>       $shots
     * @param (\Closure(): bool)|null $hasTime asked before each replay; null: there is time for all
     * @param int|null                $rounds  at the most
     * @param int                     $sure    rounds that are played whatever the time
     *
     * @return list<Tally> of the second leg and on
     */
    public function replays(Candidate $candidate, array $shots, ?\Closure $hasTime, ?int $rounds = null, int $sure = 0): array
    {
        $policy = $this->policies->of($candidate->group);
        $player = new RackPlayer($policy->values->tables->solver, $this->rack, $policy->values->order);
        $tallies = array_map(static fn (PlannedShot $planned): Tally => new Tally(), \array_slice($shots, 1));
        for ($round = 0; $round < ($rounds ?? self::ROUNDS); ++$round) {
            $isSure = $round < $sure || null === $hasTime;
            foreach ($tallies as $i => $tally) {
                if (!$isSure && !$hasTime()) {
                    return $tallies;
                }
                $planned = $shots[$i + 1];
                if (0 !== $round % self::BREAKS && null !== Racking::racked($planned->shot->layout, $this->rack->equipment)) {
                    continue;
                }
                for ($replay = 0; $replay < self::ROUND && ($isSure || 0 === $replay || $hasTime()); ++$replay) {
                    $seed = ($this->seed * 7907 + 1_000_003 * ($i + 1) + $round * self::ROUND + $replay) & 0x7FFFFFFF;
                    $player->play($tally, $policy, $planned->shot->layout, $seed, $planned->option(), $planned->turn);
                }
            }
        }

        return $tallies;
    }

    /**
     * @param (\Closure(): bool)|null $hasTime where it has none strokes are not polished
     *
     * @return array{list<PlannedShot>, Fact|null} the shots in order, and why they end before the rack is run; null if they do not
     */
    private function run(Candidate $candidate, bool $isQuick, ?\Closure $hasTime): array
    {
        $turn = Turn::first($this->rack);
        $policy = $this->policies->of($candidate->group)->during($turn);
        $order = $policy->values->order;
        $layout = $candidate->layout;
        $option = $candidate->option;
        $referee = Referee::of($this->rack);
        $shots = [];
        // Ends: each round adds a leg or returns.
        while (\count($shots) < self::LEGS) {
            try {
                $shot = $isQuick ? $this->goingOn($policy, $layout, $option) : $this->solved($policy, $layout, $option);
            } catch (CoreError $e) {
                return [$shots, $e->fact()];
            }
            $shots[] = new PlannedShot($shot, $policy, $turn);
            if ($this->rack->game->rules()->countsBalls && null !== Racking::racked($layout, $this->rack->equipment)) {
                // A break shot: no one can tell where the balls of the rack come to lie.
                return [$shots, null];
            }
            $typical = $this->typical($policy, $referee, $shots, $isQuick);
            if (null === $typical) {
                $verdict = $referee->judge(
                    $layout, $turn, Ending::of($shot->outcome), $shot->choice->ball, $shot->choice->pocket,
                    $shot->strike,
                );

                return [$shots, new Fact($verdict->isFoul() && $shot->goesOn() ? 'end.foul' : 'end.lastLeg')];
            }
            $left = Order::maskOf($typical->layout);
            if (true === $typical->verdict->isWon || $order->isOut($left)) {
                return [$shots, null];
            }
            $turn = $turn->next($typical->verdict->group);
            $layout = LegChain::after($this->rack, $typical->layout)->layout;
            if ($this->rack->game->rules()->countsBalls && Order::maskOf($layout) !== $left) {
                $isKept = $layout->has(Ball::Cue) && (Order::maskOf($layout) & $left) === $left;
                if (!$isKept || null === Racking::racked($layout, $this->rack->equipment)) {
                    return [$shots, new Fact('end.newRack')];
                }
                $break = (new BreakOff($this->rack, $policy->values->tables->solver))->choose($layout, Order::balls($left)[0], $this->seed);

                return null === $break
                    ? [$shots, new Fact('end.noBreakShot')]
                    : [[...$shots, new PlannedShot($this->solved($policy, $layout, $break), $policy, $turn)], null];
            }
            $policy = $policy->during($turn)->on($layout);
            $sound = $policy->sound($layout)[0] ?? null;
            $next = $sound ?? $policy->next($layout, $this->seed);
            if (null === $next) {
                return [$shots, new Fact('end.noShot')];
            }
            $option = $isQuick || null !== $sound || (null !== $hasTime && !$hasTime())
                ? $next
                : $policy->polished(
                    $layout,
                    $policy->plainest($layout, $next, self::WAYS, CandidateFinder::TRIES, $this->seed),
                    CandidateFinder::TRIES,
                    $this->seed,
                    CandidateFinder::POLISHED,
                );
        }

        return [$shots, null];
    }

    /** @param non-empty-list<PlannedShot> $shots the last of which was just played */
    private function typical(Policy $policy, Referee $referee, array $shots, bool $isQuick): ?Typical
    {
        $last = $shots[\count($shots) - 1];

        $typical = Typical::of(
            $last->shot,
            $policy->values->tables->solver,
            $this->rack->player,
            $referee,
            $last->turn,
            $isQuick ? self::QUICK_TRIES : self::TRIES,
            $this->seed * 31 + \count($shots),
        );

        return $typical ?? Typical::meant($last->shot, $referee, $last->turn, $this->rack->equipment);
    }

    /** Few tries chose a quick option: what is shown first should at least go on as it is meant. */
    private function goingOn(Policy $policy, Layout $layout, Option $option): SolvedShot
    {
        $shot = $this->solved($policy, $layout, $option);
        foreach ($shot->goesOn() ? [] : $policy->options($layout, self::OTHERS, CandidateFinder::POLISHED, $this->seed) as $other) {
            $meant = $this->solved($policy, $layout, $other);
            if ($meant->goesOn()) {
                return $meant;
            }
        }

        return $shot;
    }

    private function solved(Policy $policy, Layout $layout, Option $option): SolvedShot
    {
        return $policy->values->tables->solver->solve($layout, $option->choice);
    }
}
