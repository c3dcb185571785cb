<?php

declare(strict_types=1);

namespace ZigLane\Core\Reading;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Odds\QuickChance;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Angle;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\BallSet;

/** The table as a player reads it walking round: every ball with every pocket, and what makes a ball trouble; most trouble first. */
final readonly class TableReading
{
    /** Balls this near to each other are a cluster, metres: not half a ball between them. */
    private const CLUSTER = 0.028;
    /** A ball this near to a rail is frozen to it, metres. */
    private const FROZEN = 0.001;
    /** Chances below this by the geometry of the pot are not worked out in full. */
    private const WORTH = 0.01;

    /** @param list<BallReading> $balls */
    private function __construct(public array $balls)
    {
    }

    public static function of(Layout $layout, ShotSolver $solver, ExecutionErrors $errors): self
    {
        [$table, $balls] = [$solver->equipment->table, $solver->equipment->balls];
        $sight = new Sight($balls);
        $clusters = self::clusters($layout, $balls);
        $readings = [];
        foreach ($layout->balls() as $ball) {
            if (Ball::Cue === $ball) {
                continue;
            }
            $pockets = [];
            foreach (Pocket::cases() as $pocket) {
                $pockets[] = self::pocket($layout, $ball, $pocket, $solver, $sight, $errors);
            }
            usort($pockets, static fn (PocketReading $a, PocketReading $b): int => [$b->odds, $b->openShare] <=> [$a->odds, $a->openShare]);
            $spot = $layout->spot($ball);
            $gap = min($spot->x, $spot->y, $table->length - $spot->x, $table->width() - $spot->y) - $balls->radius;
            $near = \INF;
            foreach ($solver->equipment->geometry->pockets as $geometry) {
                $near = min($near, $spot->distanceTo($geometry->hole) - $geometry->holeRadius);
            }
            $readings[] = new BallReading(
                $ball,
                $pockets,
                $gap < self::FROZEN && $near > 0.06,
                $near < 0.03,
                $clusters[$ball->value] ?? [],
                $layout->has(Ball::Cue) ? $sight->seen($layout, $layout->spot(Ball::Cue), $ball)[0] : 1.0,
            );
        }
        usort(
            $readings,
            static fn (BallReading $a, BallReading $b): int => [
                $a->openPockets(),
                $a->best()->odds,
            ] <=> [$b->openPockets(), $b->best()->odds],
        );

        return new self($readings);
    }

    private static function pocket(
        Layout $layout, Ball $ball, Pocket $pocket, ShotSolver $solver, Sight $sight,
        ExecutionErrors $errors,
    ): PocketReading {
        $line = PotModel::find($layout, $ball, $pocket, $solver, $errors);
        $object = $layout->spot($ball);
        $beside = $sight->clearance(
            $layout->without(Ball::Cue),
            $object,
            $solver->equipment->geometry->at($pocket)->target($object),
            [$ball],
        );
        $blockers = [];
        foreach ($beside as $nearest) {
            if (null !== $nearest && $nearest[0] < 0.0) {
                $blockers[] = $nearest[1];
            }
        }
        if (null === $line || !$line->isOnBed()) {
            return new PocketReading($pocket, 0.0, 0.0, null, $beside, null, $blockers);
        }
        $odds = 0.0;
        $cut = null;
        $way = null;
        if ($layout->has(Ball::Cue)) {
            $spot = $layout->spot(Ball::Cue);
            $turn = abs(rad2deg(Angle::wrapped($line->line - $spot->directionTo($line->ghost))));
            $cut = $turn < 90.0 ? $turn : null;
            $odds = $line->chance($spot) < self::WORTH ? 0.0 : self::odds($layout, $line, $solver, $errors);
            $way = $sight->clearance($layout->without(Ball::Cue), $spot, $line->ghost, [$ball]);
            foreach ($way as $nearest) {
                if (null !== $nearest && $nearest[0] < 0.0 && null !== $cut) {
                    $blockers[] = $nearest[1];
                }
            }
        }

        return new PocketReading($pocket, $line->openShare(), $odds, $cut, $beside, $way, $blockers, $line->openSide());
    }

    private static function odds(Layout $layout, PotModel $line, ShotSolver $solver, ExecutionErrors $errors): float
    {
        $spot = $layout->spot(Ball::Cue);
        $choice = $line->choice($spot);
        try {
            $shot = $solver->aimed($layout, $choice);

            return QuickChance::of(
                $choice,
                $shot->strike,
                $solver->simulator->rollouts($layout),
                $solver->equipment->balls,
                $errors->in($shot->strike, ShotDemands::ofAimed($layout, $shot, $solver->equipment)),
            );
        } catch (CoreError) {
            return 0.0;
        }
    }

    /** @return array<int, list<Ball>> the other balls of each ball's cluster, by its number */
    private static function clusters(Layout $layout, BallSet $set): array
    {
        $balls = array_values(array_filter($layout->balls(), static fn (Ball $ball): bool => Ball::Cue !== $ball));
        $group = array_keys($balls);
        foreach ($balls as $i => $one) {
            foreach ($balls as $j => $other) {
                if ($j > $i && $layout->spot($one)->distanceTo($layout->spot($other)) < $set->diameter() + self::CLUSTER) {
                    $from = $group[$j];
                    $group = array_map(static fn (int $g): int => $g === $from ? $group[$i] : $g, $group);
                }
            }
        }
        $clusters = [];
        foreach ($balls as $i => $ball) {
            $mates = array_values(array_filter(
                $balls,
                static fn (Ball $other, int $j): bool => $j !== $i && $group[$j] === $group[$i],
                \ARRAY_FILTER_USE_BOTH,
            ));
            if ([] !== $mates) {
                $clusters[$ball->value] = $mates;
            }
        }

        return $clusters;
    }
}
