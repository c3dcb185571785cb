<?php

declare(strict_types=1);

namespace ZigLane\Core\Camera;

use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Table\Equipment;

/** What a picture shows as a layout: balls that were seen to lie a little over each other or a rail are moved to where they can lie. */
final readonly class SeenLayout
{
    /** A ball that is found this near to another or a rail lies against it; farther it is an error, metres. */
    private const NUDGE = 0.02;
    private const ROUNDS = 12;
    /** Balls that were moved apart lie so far from touching, metres. */
    private const APART = 1e-5;

    /**
     * @param list<SeenBall> $laid   the surest first
     * @param list<SeenBall> $unused not of this game, or in another ball's place
     */
    private function __construct(public Layout $layout, public array $laid, public array $unused)
    {
    }

    /** @param list<SeenBall> $seen */
    public static function of(array $seen, Rack $rack): self
    {
        usort($seen, static fn (SeenBall $a, SeenBall $b): int => $b->confidence <=> $a->confidence);
        $layout = Layout::empty();
        $laid = $unused = [];
        $rules = new LayoutRules($rack->equipment);
        foreach ($seen as $one) {
            $spot = $rack->game->uses($one->ball) ? self::clear($layout, $one, $rules, $rack->equipment) : null;
            if (null === $spot) {
                $unused[] = $one;
                continue;
            }
            $layout = $layout->with($one->ball, $spot);
            $laid[] = $one;
        }

        return new self($layout, $laid, $unused);
    }

    /** Where a ball can lie, no farther off than it may have been seen wrongly; null where there is no such place. */
    private static function clear(Layout $layout, SeenBall $one, LayoutRules $rules, Equipment $equipment): ?Spot
    {
        $table = $equipment->table;
        $radius = $equipment->balls->radius;
        $spot = $wished = Spot::metres(
            max($radius, min($table->length - $radius, $one->spot->x)),
            max($radius, min($table->width() - $radius, $one->spot->y)),
        );
        for ($i = 0; $i < self::ROUNDS && [] !== $rules->faults($layout->with($one->ball, $spot)); ++$i) {
            foreach ($layout->balls() as $other) {
                $at = $layout->spot($other);
                if ($at->distanceTo($spot) < 2 * $radius) {
                    $spot = $at->towards($at->directionTo($spot), 2 * $radius + self::APART);
                }
            }
        }

        return [] === $rules->faults($layout->with($one->ball, $spot)) && $spot->distanceTo($wished) < self::NUDGE ? $spot : null;
    }
}
