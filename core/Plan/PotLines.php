<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\Spot;

/**
 * The straight pots of any layout: by geometry those whose ways are free, and what each pocket takes of a ball (PotModel), found once for
 * each place. For players that do not plan (EasiestPot, ThreeAhead, Leave).
 */
final class PotLines
{
    /** Cuts thinner than this are left out, degrees. */
    private const THINNEST = 65.0;

    private readonly Sight $sight;

    /** @var array<string, PotModel|null> by pocket and place of the ball */
    private array $lines = [];

    /**
     * @param float $grid     balls are taken to lie on a grid of this width, metres, so that what a pocket takes need not be found anew for
     *                        each spot; 0: where they lie
     * @param bool  $isCoarse as PotModel has it
     */
    public function __construct(
        private readonly Rack $rack,
        private readonly ShotSolver $solver,
        private readonly float $grid = 0.0,
        private readonly bool $isCoarse = false,
    ) {
        $this->sight = new Sight($rack->equipment->balls);
    }

    /**
     * The pots whose ways are free from where the cue ball lies, the most promising first (small cut, short ways).
     *
     * @param list<Ball> $balls that may be shot
     * @param int        $most  pots that are given
     *
     * @return list<array{Ball, Pocket}>
     */
    public function open(Layout $layout, array $balls, int $most = \PHP_INT_MAX): array
    {
        $cue = $layout->spot(Ball::Cue);
        $radius = $this->rack->equipment->balls->radius;
        $thinnest = cos(deg2rad(self::THINNEST));
        $pots = [];
        foreach ($balls as $ball) {
            $spot = $layout->spot($ball);
            foreach (Pocket::cases() as $pocket) {
                $target = $this->rack->equipment->geometry->at($pocket)->target($spot);
                $left = $spot->distanceTo($target);
                if ($left < 1e-6) {
                    continue;
                }
                [$ex, $ey] = [($target->x - $spot->x) / $left, ($target->y - $spot->y) / $left];
                $ghost = Spot::metres($spot->x - 2 * $radius * $ex, $spot->y - 2 * $radius * $ey);
                $distance = $cue->distanceTo($ghost);
                $cosine = $distance < 1e-6 ? 1.0 : (($ghost->x - $cue->x) * $ex + ($ghost->y - $cue->y) * $ey) / $distance;
                if ($cosine > $thinnest) {
                    $pots[] = [$cosine / ((0.3 + $distance) * (0.3 + $left)), $ball, $pocket, $target, $ghost];
                }
            }
        }
        usort($pots, static fn (array $a, array $b): int => $b[0] <=> $a[0]);
        $open = [];
        foreach ($pots as [, $ball, $pocket, $target, $ghost]) {
            $others = $layout->without($ball)->without(Ball::Cue);
            if (
                $this->sight->isFree($others, $layout->spot($ball), $target, Sight::TIGHT)
                && $this->sight->isFree($others, $cue, $ghost, Sight::TIGHT)
            ) {
                $open[] = [$ball, $pocket];
                if (\count($open) >= $most) {
                    break;
                }
            }
        }

        return $open;
    }

    /** Chance of a pot with the usual stroke, 0 to 1, whatever stands in the ways. */
    public function chance(Spot $cue, Spot $object, Pocket $pocket): float
    {
        if (0.0 === $this->grid) {
            return $this->line($object, $pocket)?->chance($cue) ?? 0.0;
        }
        [$cue, $object, $pocket] = $this->folded($cue, $object, $pocket);
        $line = $this->line($object, $pocket);
        if (null === $line) {
            return 0.0;
        }
        // The cue ball is moved and turned with the ball and its way to the pocket, so that distance and cut stay.
        $at = $this->place($object);
        $turn = $line->line - $object->directionTo($this->rack->equipment->geometry->at($pocket)->target($object));
        [$dx, $dy] = [$cue->x - $object->x, $cue->y - $object->y];

        return $line->chance(Spot::metres($at->x + cos($turn) * $dx - sin($turn) * $dy, $at->y + sin($turn) * $dx + cos($turn) * $dy));
    }

    /**
     * The same pot on the quarter of the table that stands for all four: one corner and one side pocket are alike on every side.
     *
     * @return array{Spot, Spot, Pocket} cue ball, ball, pocket
     */
    private function folded(Spot $cue, Spot $object, Pocket $pocket): array
    {
        $isSide = Pocket::SideLeft === $pocket || Pocket::SideRight === $pocket;
        $table = $this->rack->equipment->table;
        $turnsX = $isSide ? $object->x < 0.5 * $table->length : Pocket::HeadLeft === $pocket || Pocket::HeadRight === $pocket;
        $turnsY = \in_array($pocket, [Pocket::HeadRight, Pocket::SideRight, Pocket::FootRight], true);
        $folded = static fn (Spot $spot): Spot => Spot::metres(
            $turnsX ? $table->length - $spot->x : $spot->x,
            $turnsY ? $table->width() - $spot->y : $spot->y,
        );

        return [$folded($cue), $folded($object), $isSide ? Pocket::SideLeft : Pocket::FootLeft];
    }

    /**
     * How the ball goes there when it lies alone, of its place on the grid; null where it does not. Which ball it is makes no difference.
     */
    public function line(Spot $object, Pocket $pocket): ?PotModel
    {
        $at = $this->place($object);
        $key = \sprintf('%s %.6f %.6f', $pocket->value, $at->x, $at->y);
        if (!\array_key_exists($key, $this->lines)) {
            $this->lines[$key] = PotModel::find(
                Layout::empty()->with(Ball::One, $at),
                Ball::One,
                $pocket,
                $this->solver,
                $this->rack->player,
                $this->isCoarse,
            );
        }

        return $this->lines[$key];
    }

    private function place(Spot $object): Spot
    {
        if (0.0 === $this->grid) {
            return $object;
        }
        $radius = $this->rack->equipment->balls->radius;

        return Spot::metres(
            max($radius, min($this->rack->equipment->table->length - $radius, $this->grid * round($object->x / $this->grid))),
            max($radius, min($this->rack->equipment->table->width() - $radius, $this->grid * round($object->y / $this->grid))),
        );
    }
}
