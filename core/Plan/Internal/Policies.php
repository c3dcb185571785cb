<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\Order;
use ZigLane\Core\Plan\PlanConstraints;
use ZigLane\Core\Plan\StraightRun;
use ZigLane\Core\Plan\Weights;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;

/**
 * The policy of a search for each group that may be played, with its tables and values, made when it is first asked for.
 *
 * @internal
 */
final class Policies
{
    /** @var array<string, Policy> by group */
    private array $policies = [];

    /**
     * @param int                          $kept   ways into a pocket that are kept for a ball
     * @param int                          $window where there is a sequence: how many of the next balls may change places; 0: as many as
     *                                             can be afforded. With a window values are rough: for a first plan.
     * @param array<string, PlannerTables> $known  of a quicker search, by group
     */
    public function __construct(
        private readonly Rack $rack,
        public readonly PlanConstraints $constraints,
        private readonly Weights $weights,
        private readonly int $kept = PlannerTables::KEPT,
        private readonly int $window = 0,
        private array $known = [],
    ) {
    }

    /** For a quicker search of the same rack, which takes over what is known. */
    public function quicker(int $kept, int $window): self
    {
        return new self($this->rack, $this->constraints, $this->weights, $kept, $window, $this->known);
    }

    /** What a quicker search learnt of the table is kept for this one. */
    public function learn(self $quicker): void
    {
        foreach ($quicker->policies as $group => $policy) {
            $this->known[$group] = $policy->values->tables;
        }
    }

    public function of(?Group $group): Policy
    {
        return $this->policies[$group->value ?? ''] ??= new Policy(
            new ValueTable($this->tables($group), $this->constraints, isRough: $this->window > 0),
            $group,
            $this->weights,
        );
    }

    /** Shots that were simulated so far, but for what the odds of legs and indirect shots took. */
    public function simulated(): int
    {
        $shots = [];
        // Tables that know of each other have one simulator.
        foreach ([
            ...array_values($this->known),
            ...array_map(static fn (Policy $policy): PlannerTables => $policy->values->tables, array_values($this->policies)),
        ] as $tables) {
            $shots[spl_object_id($tables->solver->simulator)] = $tables->solver->simulator->shots();
        }

        return array_sum($shots);
    }

    private function tables(?Group $group): PlannerTables
    {
        $known = $this->known[$group->value ?? ''] ?? null;

        return null === $known
            ? PlannerTables::of($this->rack, $this->order($group), $this->kept)
            : $known->keeping($this->kept, $this->order($group));
    }

    private function order(?Group $group): Order
    {
        $before = $this->constraints->before;
        if ($this->window > 0 && null !== $group) {
            $own = array_values(array_filter($this->rack->objectBalls(), $group->has(...)));

            return [] === $own
                ? Order::of($this->rack->game, $group, $before)
                : Order::aboutInTurn(StraightRun::neighbours($this->rack, $this->rack->layout, $own), Ball::Eight, $before, $this->window);
        }

        return $this->rack->game->rules()->countsBalls
            ? StraightRun::order($this->rack, $before, $this->window)
            : Order::of($this->rack->game, $group, $before);
    }
}
