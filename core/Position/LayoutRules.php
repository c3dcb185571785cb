<?php

declare(strict_types=1);

namespace ZigLane\Core\Position;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\PocketGeometry;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableGeometry;
use ZigLane\Core\Table\TableProfile;

/**
 * Whether balls can lie where a layout puts them: on the cloth or in a pocket's mouth short of its hole, clear of cushions
 * and of each other. Overlaps of up to TOUCHING count as touching.
 */
final readonly class LayoutRules
{
    /** Overlap up to which balls and cushions count as touching, metres (docs/physics.md, section 6). */
    public const TOUCHING = 1e-5;

    private TableProfile $table;
    private BallSet $balls;
    private TableGeometry $geometry;

    public function __construct(Equipment $equipment)
    {
        $this->table = $equipment->table;
        $this->balls = $equipment->balls;
        $this->geometry = $equipment->geometry;
    }

    /** @return list<IllegalLayout> every fault, an overlap named once at the later ball of the pair */
    public function faults(Layout $layout): array
    {
        $faults = [];
        $before = [];
        foreach ($layout->balls() as $ball) {
            $spot = $layout->spot($ball);
            $fault = $this->faultAt($ball, $spot);
            if (null !== $fault) {
                $faults[] = $fault;
            }
            foreach ($before as $other) {
                $depth = $this->balls->diameter() - $spot->distanceTo($layout->spot($other));
                if ($depth > self::TOUCHING) {
                    $faults[] = IllegalLayout::overlap($ball, $other, $depth);
                }
            }
            $before[] = $ball;
        }

        return $faults;
    }

    /** @throws IllegalLayout If the balls cannot lie so: the first fault */
    public function assertLegal(Layout $layout): void
    {
        foreach ($this->faults($layout) as $fault) {
            throw $fault;
        }
    }

    /**
     * The spot on the nearest rail nose line (pockets' mouths left aside) where the ball is frozen to that rail.
     */
    public function frozenToNearestRail(Spot $spot): Spot
    {
        $radius = $this->balls->radius;
        $distances = [
            Rail::Head->value => $spot->x,
            Rail::Foot->value => $this->table->length - $spot->x,
            Rail::Right->value => $spot->y,
            Rail::Left->value => $this->table->width() - $spot->y,
        ];
        asort($distances);

        return match (Rail::from((string) array_key_first($distances))) {
            Rail::Head => Spot::metres($radius, $spot->y),
            Rail::Foot => Spot::metres($this->table->length - $radius, $spot->y),
            Rail::Right => Spot::metres($spot->x, $radius),
            Rail::Left => Spot::metres($spot->x, $this->table->width() - $radius),
        };
    }

    private function faultAt(Ball $ball, Spot $spot): ?IllegalLayout
    {
        if (!is_finite($spot->x) || !is_finite($spot->y)) {
            return IllegalLayout::offTheCloth($ball, \INF);
        }
        foreach ($this->geometry->pockets as $pocket) {
            if ($spot->distanceTo($pocket->hole) < $pocket->holeRadius) {
                return IllegalLayout::overTheHole($ball, $pocket->pocket);
            }
        }
        $radius = $this->balls->radius;
        $beyond = $this->table->beyond($spot->x, $spot->y, $radius);
        if ($beyond <= self::TOUCHING) {
            return null;
        }
        foreach ($this->geometry->pockets as $pocket) {
            if (self::isInMouth($pocket, $spot)) {
                $depth = $radius - $this->clearance($pocket, $spot);

                return $depth > self::TOUCHING ? IllegalLayout::inTheJaw($ball, $pocket->pocket, $depth) : null;
            }
        }

        return IllegalLayout::offTheCloth($ball, $beyond);
    }

    /** Whether a spot outside the play surface stands between the noses of this pocket rather than on a rail. */
    private static function isInMouth(PocketGeometry $pocket, Spot $spot): bool
    {
        $mouth = $pocket->mouth();
        $across = abs(($spot->x - $mouth->x) * -$pocket->axisY + ($spot->y - $mouth->y) * $pocket->axisX);
        $half = $pocket->noseA->distanceTo($pocket->noseB) / 2;

        return $across < $half && $pocket->depth($spot) > -$half && $pocket->depth($spot) < $pocket->depth($pocket->hole);
    }

    /** Distance from a spot in a mouth to the nearest point of the pocket's facings and of any rail, metres. */
    private function clearance(PocketGeometry $pocket, Spot $spot): float
    {
        $clearance = min(
            self::toSegment($spot, $pocket->noseA, $pocket->facingEndA),
            self::toSegment($spot, $pocket->noseB, $pocket->facingEndB),
        );
        foreach ($this->geometry->rails as [, $from, $to]) {
            $clearance = min($clearance, self::toSegment($spot, $from, $to));
        }

        return $clearance;
    }

    private static function toSegment(Spot $spot, Spot $from, Spot $to): float
    {
        $dx = $to->x - $from->x;
        $dy = $to->y - $from->y;
        $share = max(0.0, min(1.0, (($spot->x - $from->x) * $dx + ($spot->y - $from->y) * $dy) / ($dx * $dx + $dy * $dy)));

        return hypot($spot->x - $from->x - $share * $dx, $spot->y - $from->y - $share * $dy);
    }
}
