<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Plan\NothingToPlan;
use ZigLane\Core\Plan\PlanSearch;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;

/** Why a position has nothing to decide, and what is to be known before one is decided that has. */
final class Refusal
{
    /** @return NothingToPlan|null null where there is something to decide */
    public static function of(Rack $rack): ?NothingToPlan
    {
        $refusal = PlanSearch::refusal($rack);
        if (null !== $refusal) {
            return $refusal;
        }

        return $rack->game->rules()->countsBalls && Situation::of($rack)->left()[0] < 1 ? NothingToPlan::lastOfRack() : null;
    }

    /** @return list<Fact> */
    public static function notes(Rack $rack): array
    {
        if (!$rack->game->rules()->hasGroups) {
            return [];
        }
        $situation = Situation::of($rack);
        $group = $situation->group ?? Group::Open;

        return Group::Open !== $group && 1 === $situation->left()[1] ? [new Fact('decide.noneOfHis', ['group' => $group->value])] : [];
    }
}
