<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Error\NoAim;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Plan\Internal\PotCandidate;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Rules\BallsOn;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\GhostBall;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\Pocket;
use ZigLane\Core\Table\TableGeometry;

/**
 * What a table leaves the player who comes to it: the chance of his easiest pot from where the cue ball lies. By geometry the pots whose
 * ways are free, and of the most promising the chance (PotModel), with the same errors as the rack's player. A safety of the other player's
 * is not thought of.
 */
final class Leave
{
    /** Cuts thinner than this are left out, degrees. */
    private const THINNEST = 65.0;

    private readonly Sight $sight;
    private readonly TableGeometry $geometry;

    /** @var array<string, PotModel|null> by pocket and place of the ball */
    private array $lines = [];

    /**
     * @param int   $looked pots of which the chance is taken, the most promising first
     * @param float $grid   balls are taken to lie on a grid of this width, metres, so that what a pocket takes need not be found anew for
     *                      each spot; 0: where they lie
     */
    public function __construct(
        private readonly Rack $rack,
        private readonly ShotSolver $solver,
        private readonly int $looked = 3,
        private readonly float $grid = 0.0,
    ) {
        $this->sight = new Sight($rack->equipment->balls);
        $this->geometry = $rack->equipment->geometry;
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
        $other = match ($group) {
            Group::Solids => Group::Stripes,
            Group::Stripes => Group::Solids,
            default => $group,
        };
        $balls = BallsOn::of($this->rack->game, $layout, $other);
        if (Game::EightBall === $this->rack->game && \count($balls) > 1) {
            $balls = array_values(array_filter($balls, static fn (Ball $ball): bool => Ball::Eight !== $ball));
        }

        return $this->easiest($layout, $balls);
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
        $cue = $layout->spot(Ball::Cue);
        $pots = [];
        foreach ($balls as $ball) {
            $others = $layout->without($ball)->without(Ball::Cue);
            $spot = $layout->spot($ball);
            foreach (Pocket::cases() as $pocket) {
                try {
                    $ghost = GhostBall::of($cue, $spot, $this->geometry->at($pocket), $this->rack->equipment->balls, $ball);
                } catch (NoAim) {
                    continue;
                }
                $promise = cos(deg2rad($ghost->cutDegrees)) / ((0.3 + $ghost->distance) * (0.3 + $ghost->objectDistance));
                if (
                    $ghost->cutDegrees < self::THINNEST
                    && 0 === PotCandidate::inTheWay($this->sight, $others, $spot, $this->geometry->at($pocket)->mouth())
                    && 0 === PotCandidate::inTheWay($this->sight, $others, $cue, $ghost->at)
                ) {
                    $pots[] = [$promise, $ball, $pocket];
                }
            }
        }
        usort($pots, static fn (array $a, array $b): int => $b[0] <=> $a[0]);
        $best = null;
        foreach (\array_slice($pots, 0, $this->looked) as [, $ball, $pocket]) {
            $chance = $this->chance($cue, $layout->spot($ball), $pocket);
            if ($chance > ($best[2] ?? 0.0)) {
                $best = [$ball, $pocket, $chance];
            }
        }

        return $best;
    }

    private function chance(Spot $cue, Spot $object, Pocket $pocket): float
    {
        if (0.0 === $this->grid) {
            return $this->line($object, $pocket)?->chance($cue) ?? 0.0;
        }
        $radius = $this->rack->equipment->balls->radius;
        $at = Spot::metres(
            max($radius, min($this->rack->equipment->table->length - $radius, $this->grid * round($object->x / $this->grid))),
            max($radius, min($this->rack->equipment->table->width() - $radius, $this->grid * round($object->y / $this->grid))),
        );
        $key = \sprintf('%s %.3f %.3f', $pocket->value, $at->x, $at->y);
        if (!\array_key_exists($key, $this->lines)) {
            $this->lines[$key] = $this->line($at, $pocket);
        }

        // The cue ball is moved with the ball, so that distance and cut stay.
        return $this->lines[$key]?->chance(Spot::metres($cue->x + $at->x - $object->x, $cue->y + $at->y - $object->y)) ?? 0.0;
    }

    private function line(Spot $object, Pocket $pocket): ?PotModel
    {
        // Which ball it is makes no difference when it lies alone.
        return PotModel::find(Layout::empty()->with(Ball::One, $object), Ball::One, $pocket, $this->solver, $this->rack->player);
    }
}
