<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;

/**
 * The balls that may be met first, by the world standard rules (WPA; from memory): nine- and ten-ball the lowest on the table; eight-ball
 * any but the 8 while the table is open, then those of the group, and the 8 when none is left; straight pool any.
 */
final class BallsOn
{
    /** @return list<Ball> in the order of the game */
    public static function of(Game $game, Layout $layout, ?Group $group): array
    {
        return $game->rules()->on($game->rules()->lying($layout), $group);
    }

    /** @return list<Ball> those of them that may be shot at a pocket: on an open table not the 8 */
    public static function toPot(Game $game, Layout $layout, ?Group $group): array
    {
        return $game->rules()->toPot(self::of($game, $layout, $group));
    }
}
