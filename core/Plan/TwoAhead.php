<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Plan\Internal\PlannerTables;
use ZigLane\Core\Plan\Internal\ValueTable;
use ZigLane\Core\PositionPlay\Zone;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Table\Spot;

/**
 * The odds to make a ball and then the one after it, from any cue ball spot: what is needed to see the right side of the line. The
 * share of good positions after the pot comes from the planner's values on its grid, the odds of the pot itself from PotModel.
 */
final class TwoAhead
{
    /**
     * @param Rack                     $rack  the balls as they lie before the first of the two is shot
     * @param non-empty-list<PotModel> $lines of the first ball
     *
     * @return \Closure(Spot): float 0 to 1
     */
    public static function odds(Rack $rack, array $lines, Ball $after): \Closure
    {
        $tables = PlannerTables::of($rack, Order::inTurn([$lines[0]->ball, $after]));
        $both = new ValueTable($tables, new PlanConstraints());
        $one = new ValueTable($tables->keeping(PlannerTables::KEPT, Order::inTurn([$lines[0]->ball])), new PlanConstraints());
        $pot = $one->map($tables->all());
        $run = $both->map($tables->all());
        // Where the pot itself is not to be had nothing is known of what comes after it: as good as anywhere.
        $share = array_map(static fn (float $pot, float $run): ?float => $pot > 0.05 ? min(1.0, $run / $pot) : null, $pot, $run);
        $known = array_filter($share, static fn (?float $value): bool => null !== $value);
        $usual = [] === $known ? 0.0 : array_sum($known) / \count($known);
        $share = array_map(static fn (?float $value): float => $value ?? $usual, $share);

        return static fn (Spot $spot): float => Zone::best($lines, $spot) * $tables->grid->at($share, $spot->x, $spot->y);
    }
}
