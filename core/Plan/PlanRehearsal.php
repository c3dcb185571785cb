<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;

/** A plan played many times: as it stands, each leg aimed anew from where the balls lie, or planned again after every shot. */
final class PlanRehearsal
{
    /**
     * @param Spot|null        $place of the cue ball, where the rack has it in hand
     * @param list<ShotChoice> $legs  at least one
     *
     * @throws CoreError If the cue ball cannot lie there or the first leg cannot be aimed
     */
    public static function of(Rack $rack, ?Spot $place, ?Group $group, array $legs, int $times, int $seed = 1, bool $replans = false): Replays
    {
        $layout = $rack->layout->has(Ball::Cue) || null === $place ? $rack->layout : $rack->withBall(Ball::Cue, $place)->layout;
        $search = new PlanSearch($rack);
        $policy = $search->policy($group ?? $rack->group);
        $replays = new Replays();
        $solver = new ShotSolver($rack->equipment);
        $first = self::option($solver, $layout, $legs[0]);
        if (null === $first) {
            $solver->aimed($layout, $legs[0]);
        }
        for ($i = 0; $i < $times; ++$i) {
            $chooser = $replans ? $policy : self::asPlanned($solver, $legs);
            $replays->play($chooser, $solver, $rack, $group ?? $rack->group, $policy->values->order, $layout, ($seed * 104729 + $i) & 0x7FFFFFFF, $replans ? $first : null);
        }

        return $replays;
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

    /** @param list<ShotChoice> $legs */
    private static function asPlanned(ShotSolver $solver, array $legs): Chooser
    {
        return new class(static function (Layout $layout) use ($solver, $legs): ?Option {
            // The first leg whose ball still lies there.
            foreach ($legs as $leg) {
                if ($layout->has($leg->ball)) {
                    return self::option($solver, $layout, $leg);
                }
            }

            return null;
        }) implements Chooser {
            /** @param \Closure(Layout): ?Option $choose */
            public function __construct(private readonly \Closure $choose)
            {
            }

            public function next(Layout $layout, int $seed): ?Option
            {
                return ($this->choose)($layout);
            }
        };
    }
}
