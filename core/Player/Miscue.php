<?php

declare(strict_types=1);

namespace ZigLane\Core\Player;

use ZigLane\Core\Math\Normal;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Table\Cue;

/** How often a player's tip lands past the miscue limit when a stroke is meant. */
final class Miscue
{
    /** The error sideways is gone through from so many deviations on one side to the other, in so many steps. */
    private const WIDE = 6.0;
    private const STEPS = 60;

    /**
     * Chance of a miscue, 0 to 1: a normal error in either direction about the tip's place, past the circle of the limit.
     *
     * @param float $ballRadius metres
     */
    public static function chance(Strike $meant, Deviations $errors, float $ballRadius): float
    {
        $limit = Cue::MISCUE_LIMIT;
        $millimetre = 0.001 / $ballRadius;
        $off = [$errors->biases->tipSide * $millimetre, $errors->biases->tipHeight * $millimetre];
        $wide = max(1e-9, $errors->tipSide * $millimetre);
        $high = max(1e-9, $errors->tipHeight * $millimetre);
        $from = max(-$limit, $meant->side + $off[0] - self::WIDE * $wide);
        $half = 0.5 * (min($limit, $meant->side + $off[0] + self::WIDE * $wide) - $from);
        $inside = 0.0;
        for ($i = 1; $i < self::STEPS; ++$i) {
            // Equal steps of an angle: the ends of the circle, where it closes up, are gone through in ever smaller steps.
            $angle = \M_PI * $i / self::STEPS;
            $side = $from + $half * (1 - cos($angle));
            $u = ($side - $meant->side - $off[0]) / $wide;
            $chord = \sqrt(max(0.0, $limit * $limit - $side * $side));
            $inside += sin($angle) * exp(-0.5 * $u * $u) * Normal::between(
                (-$chord - $meant->height - $off[1]) / $high,
                ($chord - $meant->height - $off[1]) / $high,
            );
        }

        return min(1.0, max(0.0, 1 - $inside * $half * \M_PI / self::STEPS / ($wide * \sqrt(2 * \M_PI))));
    }
}
