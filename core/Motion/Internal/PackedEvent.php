<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

/**
 * What has happened in a shot, as one number: an array for each event would cost more than finding it. The lowest three bits are the
 * kind, then five bits for the ball, five for the other ball plus one, and the rail or pocket plus one.
 *
 * @internal
 */
final class PackedEvent
{
    public const BALL = 0;
    public const CUSHION = 1;
    public const JAW = 2;
    public const POCKET = 3;
    public const ROLL = 4;
    public const REST = 5;

    private const KIND_MASK = 7;
    private const BALL_SHIFT = 3;
    private const BALL_MASK = 31;
    private const OTHER_SHIFT = 8;
    private const PLACE_SHIFT = 13;

    /** Two balls meet. */
    public static function meeting(int $ball, int $other): int
    {
        return self::BALL | $ball << self::BALL_SHIFT | $other + 1 << self::OTHER_SHIFT;
    }

    /**
     * What a ball does at a place.
     *
     * @param int $kind  CUSHION to POCKET
     * @param int $place index of the rail (Surfaces::RAILS) or of the pocket (Surfaces::POCKETS)
     */
    public static function at(int $kind, int $ball, int $place): int
    {
        return $kind | $ball << self::BALL_SHIFT | $place + 1 << self::PLACE_SHIFT;
    }

    /** @param int $kind ROLL or REST: what a ball does by itself */
    public static function alone(int $kind, int $ball): int
    {
        return $kind | $ball << self::BALL_SHIFT;
    }

    public static function kind(int $event): int
    {
        return $event & self::KIND_MASK;
    }

    public static function ball(int $event): int
    {
        return $event >> self::BALL_SHIFT & self::BALL_MASK;
    }

    /** The second ball of a meeting, -1 of what is none. */
    public static function other(int $event): int
    {
        return ($event >> self::OTHER_SHIFT & self::BALL_MASK) - 1;
    }

    /** Index of the rail or pocket, -1 if it is at none. */
    public static function place(int $event): int
    {
        return ($event >> self::PLACE_SHIFT) - 1;
    }
}
