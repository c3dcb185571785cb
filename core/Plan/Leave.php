<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallsOn;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;

/**
 * What a table leaves the player who comes to it: the chance of his easiest pot from where the cue ball lies. By geometry the pots whose
 * ways are free, and of the most promising the chance (PotModel), with the same errors as the rack's player. A safety of the other player's
 * is not thought of.
 */
final readonly class Leave
{
    private PotLines $lines;

    /**
     * @param int   $looked   pots of which the chance is taken, the most promising first
     * @param float $grid     of the places of balls, metres, as PotLines has it
     * @param bool  $isCoarse as PotModel has it
     */
    public function __construct(
        private Rack $rack,
        ShotSolver $solver,
        private int $looked = 3,
        float $grid = 0.0,
        bool $isCoarse = false,
    ) {
        $this->lines = new PotLines($rack, $solver, $grid, $isCoarse);
    }

    /**
     * What a miss leaves the other player.
     *
     * @param Group|null $group the group of the one who missed, in eight-ball
     *
     * @return float chance of his easiest pot, 0 if nothing goes straight
     */
    public function toOther(Layout $layout, ?Group $group): float
    {
        return $this->easiest($layout, BallsOn::toPot($this->rack->game, $layout, $group?->other()));
    }

    /**
     * @param list<Ball> $balls that may be shot
     *
     * @return float chance of the easiest pot, 0 if nothing goes straight
     */
    public function easiest(Layout $layout, array $balls): float
    {
        return $this->surest($layout, $balls)[2] ?? 0.0;
    }

    /**
     * The easiest pot from where the cue ball lies.
     *
     * @param list<Ball> $balls that may be shot
     *
     * @return array{Ball, Pocket, float}|null with its chance; null if nothing goes straight
     */
    public function surest(Layout $layout, array $balls): ?array
    {
        $best = null;
        foreach ($this->lines->open($layout, $balls, $this->looked) as [$ball, $pocket]) {
            $chance = $this->lines->chance($layout->spot(Ball::Cue), $layout->spot($ball), $pocket);
            if ($chance > ($best[2] ?? 0.0)) {
                $best = [$ball, $pocket, $chance];
            }
        }

        return $best;
    }
}
