<?php

declare(strict_types=1);

namespace ZigLane\Core\Stroke;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * Where the bridge hand lies: a hand's length behind the cue ball. On the rail or over a ball it does not lie as steady as on the cloth.
 */
final class Bridge
{
    /** From the cue ball's centre to the hand, metres: common practice, about eight inches. */
    public const LENGTH = 0.20;
    /** How far the hand and the wrist reach back from there, and half their width, metres: common practice. */
    private const HAND = 0.10;
    private const WIDTH = 0.04;

    /**
     * Whether the hand lies on the rail or over a ball.
     *
     * @param float $direction of the cue, radians
     */
    public static function isAwkward(Layout $layout, float $direction, Equipment $equipment): bool
    {
        $cue = $layout->spot(Ball::Cue);

        return self::isOnRail($cue, $direction, $equipment) || self::isOverBall($layout, $cue, $direction, $equipment->balls->radius);
    }

    public static function isOnRail(Spot $cue, float $direction, Equipment $equipment): bool
    {
        return $equipment->table->beyond($cue->x - self::LENGTH * cos($direction), $cue->y - self::LENGTH * sin($direction), 0.0) > 0.0;
    }

    private static function isOverBall(Layout $layout, Spot $cue, float $direction, float $radius): bool
    {
        [$bx, $by] = [-cos($direction), -sin($direction)];
        foreach ($layout->balls() as $ball) {
            [$dx, $dy] = [$layout->spot($ball)->x - $cue->x, $layout->spot($ball)->y - $cue->y];
            $behind = $dx * $bx + $dy * $by;
            if (
                Ball::Cue !== $ball
                && $behind > 0.0
                && $behind < self::LENGTH + self::HAND
                && abs($dx * $by - $dy * $bx) < self::WIDTH + $radius
            ) {
                return true;
            }
        }

        return false;
    }
}
