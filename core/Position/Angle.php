<?php

declare(strict_types=1);

namespace ZigLane\Core\Position;

/** Plane angles in radians. */
final class Angle
{
    /** The same angle in (-pi, pi]. */
    public static function wrapped(float $radians): float
    {
        return atan2(sin($radians), cos($radians));
    }
}
