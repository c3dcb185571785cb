<?php

declare(strict_types=1);

namespace ZigLane\Core\Stroke;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;

/**
 * How far a cue must be raised to clear what lies behind the cue ball: the rail, or balls under the shaft. The shaft is a straight
 * rod whose axis goes through the point that the tip meets; it must pass above the nose of the rail and above the balls' tops.
 */
final readonly class CueClearance
{
    /** Radius of a shaft a hand's breadth behind the tip, metres: common practice. */
    private const SHAFT = 0.0065;
    /** Balls farther behind than this lie under the bridge hand or beyond it, metres. */
    private const REACH = 0.4;

    private function __construct(
        /** Degrees; 0 if nothing is in the way. */
        public float $least,
        /** What it must clear; null if nothing. */
        public Rail|Ball|null $over,
    ) {
    }

    /** @param float $direction of the cue, radians */
    public static function of(Layout $layout, float $direction, Tip $tip, Equipment $equipment): self
    {
        $table = $equipment->table;
        $radius = $equipment->balls->radius;
        $cue = $layout->spot(Ball::Cue);
        [$bx, $by] = [-cos($direction), -sin($direction)];
        $point = $radius * (1 + $tip->height);
        $least = 0.0;
        $over = null;
        $take = static function (float $height, float $behind, Rail|Ball $what) use ($point, &$least, &$over): void {
            $angle = rad2deg(atan2($height + self::SHAFT - $point, max($behind, 1e-3)));
            if ($angle > $least) {
                [$least, $over] = [$angle, $what];
            }
        };
        $nose = $table->noseHeight * $radius;
        foreach ([
            [Rail::Head, $bx, -1, $cue->x],
            [Rail::Foot, $bx, 1, $table->length - $cue->x],
            [Rail::Right, $by, -1, $cue->y],
            [Rail::Left, $by, 1, $table->width() - $cue->y],
        ] as [$rail, $along, $sign, $distance]) {
            if ($sign * $along > 1e-6) {
                $behind = $distance / abs($along);
                if ($behind < self::REACH) {
                    $take($nose, $behind, $rail);
                }
            }
        }
        foreach ($layout->balls() as $ball) {
            if (Ball::Cue === $ball) {
                continue;
            }
            $dx = $layout->spot($ball)->x - $cue->x;
            $dy = $layout->spot($ball)->y - $cue->y;
            $behind = $dx * $bx + $dy * $by;
            $aside = abs($dx * $by - $dy * $bx - $tip->side * $radius);
            if ($behind > 0.0 && $behind < self::REACH && $aside < $radius + self::SHAFT) {
                // The shaft rests on the ball where their outlines touch: lower towards the ball's side.
                $take($radius + \sqrt(max(0.0, ($radius + self::SHAFT) ** 2 - $aside ** 2)) - self::SHAFT, $behind, $ball);
            }
        }

        return new self($least, $over);
    }
}
