<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Symfony\Component\HttpKernel\Exception\UnprocessableEntityHttpException;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Table\TableProfile;

/** Reads what a person types or a page sends: spots in diamonds, names of balls. */
final class SpotText
{
    /** A spot typed as "long,short" in diamonds, like "4.5,1.25". */
    public static function spot(string $text, TableProfile $table): Spot
    {
        if (1 !== preg_match('/^\s*(-?\d{1,3}(?:\.\d{1,12})?)\s*[,;\s]\s*(-?\d{1,3}(?:\.\d{1,12})?)\s*$/', $text, $found)) {
            throw new UnprocessableEntityHttpException('Type a spot as two numbers in diamonds, along and across: 4.5,1.25. Along runs from 0 at the head rail to 8, across from 0 at the right rail to 4.');
        }

        return Spot::diamonds((float) $found[1], (float) $found[2], $table);
    }

    public static function ball(string $name): Ball
    {
        return Ball::named($name) ?? throw new UnprocessableEntityHttpException('There is no such ball. The cue ball and the 1 to the 15 can be laid out.');
    }
}
