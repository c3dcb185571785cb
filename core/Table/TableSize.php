<?php

declare(strict_types=1);

namespace ZigLane\Core\Table;

/** Playing surfaces that are common, by their name in feet. Published: WPA equipment specification (9 ft); trade sizes (8 and 7 ft). */
enum TableSize: int
{
    case Seven = 7;
    case Eight = 8;
    case Nine = 9;

    /** Length between the cushion noses, metres. */
    public function length(): float
    {
        return match ($this) {
            self::Seven => 1.9812,
            self::Eight => 2.2352,
            self::Nine => 2.540,
        };
    }
}
