<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * Balls that come back to the table (WPA, spotting balls, from memory): on the foot spot or, where that is taken, on the long string as
 * near to it as may be, towards the foot rail, and where there is no room towards the head. A spotted ball may touch other object balls
 * but not the cue ball.
 */
final class Spotting
{
    /** From a cue ball that is in the way, metres: close to it but not touching. */
    private const OFF = 0.001;

    /** @param list<Ball> $balls in the order of their numbers */
    public static function back(Layout $layout, array $balls, Equipment $equipment): Layout
    {
        usort($balls, static fn (Ball $a, Ball $b): int => $a->value <=> $b->value);

        return array_reduce($balls, static fn (Layout $on, Ball $ball): Layout => $on->with($ball, self::place($on, $equipment)), $layout);
    }

    private static function place(Layout $layout, Equipment $equipment): Spot
    {
        $foot = Racking::footSpot($equipment->table);
        $radius = $equipment->balls->radius;
        foreach ([1, -1] as $way) {
            $x = $foot->x;
            // Ends: x goes past one ball a round, always the same way.
            do {
                $blocked = false;
                foreach ($layout->balls() as $ball) {
                    $other = $layout->spot($ball);
                    $reach = 2 * $radius + (Ball::Cue === $ball ? self::OFF : 0.0);
                    $aside = abs($other->y - $foot->y);
                    $along = $aside < $reach ? \sqrt($reach ** 2 - $aside ** 2) : 0.0;
                    // A billionth more, so that a ball just beyond this one is not met again by rounding.
                    if ($along > 0.0 && abs($other->x - $x) < $along - 1e-9) {
                        $x = $other->x + $way * ($along + 1e-9);
                        $blocked = true;
                    }
                }
            } while ($blocked);
            if ($x >= $radius && $x <= $equipment->table->length - $radius) {
                return Spot::metres($x, $foot->y);
            }
        }

        return $foot;
    }
}
