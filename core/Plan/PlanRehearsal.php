<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;

/**
 * A plan played many times: as it stands, each leg aimed anew from where the balls lie, or planned again after every shot. As it stands the
 * run ends where the plan plays safe: that shot is not played.
 */
final class PlanRehearsal
{
    /** @throws CoreError If the cue ball cannot lie where the plan has it, or the first leg cannot be aimed */
    public static function of(Plan $plan, int $times, int $seed = 1, bool $replans = false): Tally
    {
        $rack = $plan->placed();
        $group = $plan->group ?? $rack->group;
        $search = new PlanSearch($plan->rack);
        $solver = new ShotSolver($rack->equipment);
        $legs = $plan->choices();
        $first = Option::of($solver->aimed($rack->layout, $legs[0]), 1.0);
        $player = new RackPlayer($solver, $rack, $search->order($group));
        $tally = new Tally();
        for ($i = 0; $i < $times; ++$i) {
            $isSafe = false;
            $chooser = $replans ? $search->chooser($group) : self::asPlanned($solver, $legs, $isSafe);
            $player->play($tally, $chooser, $rack->layout, ($seed * 104729 + $i) & 0x7FFFFFFF, $replans ? $first : null);
            if ($isSafe) {
                --$tally->ended[RunEnd::NoShot->value];
                ++$tally->ended[RunEnd::Safety->value];
            }
        }

        return $tally;
    }

    private static function option(ShotSolver $solver, Layout $layout, ShotChoice $choice): ?Option
    {
        if (!$layout->has($choice->ball)) {
            return null;
        }
        try {
            return Option::of($solver->aimed($layout, $choice), 1.0);
        } catch (CoreError) {
            return null;
        }
    }

    /**
     * @param list<ShotChoice> $legs
     * @param bool             $isSafe set where the run comes to a safety
     */
    private static function asPlanned(ShotSolver $solver, array $legs, bool &$isSafe): Chooser
    {
        return new class(static function (Layout $layout) use ($solver, $legs, &$isSafe): ?Option {
            // The first leg whose ball still lies there.
            foreach ($legs as $leg) {
                if ($layout->has($leg->ball)) {
                    if ($leg->isSafety) {
                        $isSafe = true;

                        return null;
                    }

                    return self::option($solver, $layout, $leg);
                }
            }

            return null;
        }) implements Chooser {
            /** @param \Closure(Layout): ?Option $choose */
            public function __construct(private readonly \Closure $choose)
            {
            }

            public function next(Layout $layout, int $seed, ?Turn $turn = null): ?Option
            {
                return ($this->choose)($layout);
            }
        };
    }
}
