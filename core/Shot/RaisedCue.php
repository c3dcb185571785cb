<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Stroke\CueClearance;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Equipment;

/** A stroke in a direction, with the cue raised as far as the rail and the balls behind the cue ball force it: for looking all round. */
final class RaisedCue
{
    /** A cue is never quite level, degrees. */
    private const LEVEL = 2.0;

    /** Degrees by which the cue must be raised. */
    public static function least(Layout $layout, float $direction, float $height, Equipment $equipment): float
    {
        return CueClearance::of($layout, $direction, Tip::fractions(0.0, $height), $equipment)->least;
    }

    /**
     * @param float      $direction of the cue ball, radians: the cue points beside it as far as the tip's side sends the ball away
     * @param float      $side      of the tip, and its height: fractions of the radius
     * @param float|null $least     what `least` gives, where it is known
     *
     * @return Strike|null null where it cannot be played
     */
    public static function strike(
        Layout $layout,
        Equipment $equipment,
        float $direction,
        float $speedMps,
        float $side,
        float $height,
        ?float $least = null,
    ): ?Strike {
        try {
            $least ??= self::least($layout, $direction, $height, $equipment);
            $strike = Strike::degrees(
                rad2deg($direction),
                $speedMps,
                $side,
                $height,
                max(self::LEVEL, ceil($least)),
                $equipment->cue->endMassRatio,
            );
        } catch (CoreError) {
            return null;
        }

        return 0.0 === $side ? $strike : $strike->withDirection($direction - $strike->squirt());
    }
}
