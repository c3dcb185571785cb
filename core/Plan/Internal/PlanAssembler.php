<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Plan\BreakOff;
use ZigLane\Core\Plan\Candidate;
use ZigLane\Core\Plan\Option;
use ZigLane\Core\Plan\Order;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Plan\Tally;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\Spotting;
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
    /** Options that are looked at where the first one does not go on as it is meant. */
    private const OTHERS = 16;

    public function __construct(private Rack $rack, private Policies $policies, private int $seed)
    {
    }

    /** @param bool $isQuick strokes are not polished, and there are neither zones nor reasons */
    public function plan(Candidate $candidate, Tally $replays, bool $isQuick = false): Plan
    {
        [$shots, $end] = $this->run($candidate, $isQuick);

        return new Plan(
            $this->rack,
            $candidate->place,
            $candidate->group,
            (new LegWriter($this->rack, $isQuick))->legs($shots, $replays),
            $end,
            $replays,
        );
    }

    /** @return array{list<PlannedShot>, Fact|null} the shots in order, and why they end before the rack is run; null if they do not */
    private function run(Candidate $candidate, bool $isQuick): array
    {
        $policy = $this->policies->of($candidate->group)->during(Turn::first($this->rack));
        $order = $policy->values->order;
        $layout = $candidate->layout;
        $option = $candidate->option;
        $turn = Turn::first($this->rack);
        $referee = Referee::of($this->rack);
        $shots = [];
        while (\count($shots) < self::LEGS) {
            try {
                $shot = $isQuick ? $this->goingOn($policy, $layout, $option) : $this->solved($policy, $layout, $option);
            } catch (CoreError $e) {
                return [$shots, $e->fact()];
            }
            $shots[] = new PlannedShot($shot, $policy, $turn);
            $verdict = $referee->judge(
                $layout, $turn, Ending::of($shot->outcome), $shot->choice->ball, $shot->choice->pocket,
                $shot->strike,
            );
            if (true === $verdict->isWon) {
                return [$shots, null];
            }
            if (!$verdict->goesOn) {
                return [$shots, new Fact($shot->goesOn() ? 'end.foul' : 'end.lastLeg')];
            }
            $turn = $turn->next($verdict->group);
            $final = Spotting::back($shot->outcome->final, $verdict->spots, $this->rack->equipment);
            $left = Order::maskOf($final);
            if ($order->isOut($left)) {
                return [$shots, null];
            }
            $layout = LegChain::after($this->rack, $final)->layout;
            if (Game::StraightPool === $this->rack->game && Order::maskOf($layout) !== $left) {
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
            $next = $policy->next($layout, $this->seed);
            if (null === $next) {
                return [$shots, new Fact('end.noShot')];
            }
            $option = $isQuick ? $next : $policy->polished($layout, $next, CandidateFinder::TRIES, $this->seed, CandidateFinder::POLISHED);
        }

        return [$shots, null];
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
