<?php

declare(strict_types=1);

namespace ZigLane\App\Words;

/** What a player counts the distance of the tip from the centre of the cue ball in. */
enum TipUnit: string
{
    case Tips = 'tips';
    case Percent = 'percent';
    case Millimetres = 'mm';

    public function label(): string
    {
        return match ($this) {
            self::Tips => 'Tips',
            self::Percent => '% of R',
            self::Millimetres => 'mm',
        };
    }
}
