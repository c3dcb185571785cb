<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

/** Plane angles in radians. */
final class Angle
{
    /** The same angle in (-pi, pi]. */
    public static function wrapped(float $radians): float
    {
        return atan2(sin($radians), cos($radians));
    }
}
