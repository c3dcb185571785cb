<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Plan\PotLines;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\Spot;

/** Where the cue ball in hand may well be placed to pot a ball: behind it, at several cuts and distances, where the way is free. */
final readonly class HandPlaces
{
    private const CUTS = [12, -12, 28, -28, 45, -45];
    private const BEHIND = [0.25, 0.5, 0.9];
    /** Pots that are looked at, those nearest to their pockets first. */
    private const POTS = 8;

    private PotLines $lines;
    private Sight $sight;
    private OpenBalls $open;

    public function __construct(private Rack $rack, ShotSolver $solver, ExecutionErrors $player)
    {
        $this->lines = new PotLines($rack->withPlayer($player), $solver, PositionValue::GRID);
        $this->sight = new Sight($rack->equipment->balls);
        $this->open = new OpenBalls($rack->equipment);
    }

    /**
     * @return list<array{Spot, Ball, Pocket, float}> place, the pot it is for and its chance: the surest first
     */
    public function of(Situation $situation, int $most): array
    {
        $pots = [];
        foreach ($situation->shootable() as $ball) {
            $spot = $situation->layout->spot($ball);
            foreach ($this->open->pockets($situation->layout, $ball) as $pocket) {
                $target = $this->rack->equipment->geometry->at($pocket)->target($spot);
                $pots[] = [$spot->distanceTo($target), $ball, $pocket, $target];
            }
        }
        usort($pots, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $places = [];
        foreach (\array_slice($pots, 0, self::POTS) as [, $ball, $pocket, $target]) {
            array_push($places, ...$this->behind($situation, $ball, $pocket, $target));
        }
        usort($places, static fn (array $a, array $b): int => $b[3] <=> $a[3]);

        return \array_slice($places, 0, $most);
    }

    /**
     * Places from which a ball on is seen, spread over the table, those that see most of the nearest one first; where none is seen, any.
     *
     * @return list<Spot>
     */
    public function seeing(Situation $situation, int $most): array
    {
        $table = $this->rack->equipment->table;
        $rules = new LayoutRules($this->rack->equipment);
        $long = BallInHand::Kitchen === $situation->inHand ? [0.08, 0.16, 0.24] : [0.1, 0.25, 0.4, 0.6, 0.75, 0.9];
        $places = [];
        foreach ($long as $x) {
            foreach ([0.15, 0.38, 0.62, 0.85] as $y) {
                $place = Spot::metres($x * $table->length, $y * $table->width());
                if ([] !== $rules->faults($situation->layout->with(Ball::Cue, $place))) {
                    continue;
                }
                $seen = 0.0;
                foreach ($situation->on() as $ball) {
                    $seen = max($seen, $this->sight->seen($situation->layout, $place, $ball)[0] / (0.5 + $place->distanceTo(
                        $situation->layout->spot($ball),
                    )));
                }
                $places[] = [$seen, $place];
            }
        }
        usort($places, static fn (array $a, array $b): int => $b[0] <=> $a[0]);

        return array_column(\array_slice($places, 0, $most), 1);
    }

    /** @return list<array{Spot, Ball, Pocket, float}> */
    private function behind(Situation $situation, Ball $ball, Pocket $pocket, Spot $target): array
    {
        $spot = $situation->layout->spot($ball);
        $line = $spot->directionTo($target);
        $ghost = $spot->towards($line + \M_PI, $this->rack->equipment->balls->diameter());
        $rules = new LayoutRules($this->rack->equipment);
        $places = [];
        foreach (self::BEHIND as $distance) {
            foreach (self::CUTS as $cut) {
                $place = $ghost->towards($line + \M_PI + deg2rad($cut), $distance);
                if (
                    (BallInHand::Kitchen === $situation->inHand && $place->x > 0.25 * $this->rack->equipment->table->length)
                    || [] !== $rules->faults($situation->layout->with(Ball::Cue, $place))
                    || !$this->sight->isFree($situation->layout->without($ball), $place, $ghost, Sight::TIGHT)
                ) {
                    continue;
                }
                $chance = $this->lines->chance($place, $spot, $pocket);
                if ($chance > 0.0) {
                    $places[] = [$place, $ball, $pocket, $chance];
                }
            }
        }

        return $places;
    }
}
