<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use ZigLane\App\Words\Refused;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/** Reads what a person types or a page sends: spots in diamonds, names of balls. */
final class SpotText
{
    /** A spot typed as "long,short" in diamonds, like "4.5,1.25"; with decimal commas "4,5; 1,25" or "4,5 1,25". */
    public static function spot(string $text, TableProfile $table): Spot
    {
        if (1 === preg_match('/^\s*-?\d{1,3}(?:,\d+)?(?:\s*;\s*|\s+)-?\d{1,3}(?:,\d+)?\s*$/', $text)) {
            $text = str_replace(',', '.', $text);
        }
        if (1 !== preg_match('/^\s*(-?\d{1,3}(?:\.\d{1,12})?)\s*[,;\s]\s*(-?\d{1,3}(?:\.\d{1,12})?)\s*$/', $text, $found)) {
            throw Refused::because('spot');
        }

        return Spot::diamonds((float) $found[1], (float) $found[2], $table);
    }

    public static function ball(string $name): Ball
    {
        return Ball::named($name) ?? throw Refused::because('ball');
    }
}
