<?php

declare(strict_types=1);

namespace ZigLane\Core\Camera;

use ZigLane\Core\Name\Ball;

/** The common colours of a set: solids 1 to 7, the black 8, stripes 9 to 15 in the same order. */
final class BallColours
{
    public const WHITE = [236.0, 230.0, 214.0];
    public const BLACK = [26.0, 26.0, 28.0];
    /** Yellow, blue, red, purple, orange, green, maroon. */
    public const HUES = [
        1 => [228.0, 178.0, 22.0], 2 => [28.0, 62.0, 158.0], 3 => [206.0, 30.0, 30.0], 4 => [92.0, 42.0, 128.0], 5 => [232.0, 108.0, 22.0],
        6 => [14.0, 104.0, 58.0], 7 => [112.0, 24.0, 28.0],
    ];

    /** @return array{float, float, float} 0 to 255 */
    public static function of(Ball $ball): array
    {
        return match (true) {
            Ball::Cue === $ball => self::WHITE,
            Ball::Eight === $ball => self::BLACK,
            default => self::HUES[$ball->value > 8 ? $ball->value - 8 : $ball->value],
        };
    }
}
