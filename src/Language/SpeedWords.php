<?php

declare(strict_types=1);

namespace ZigLane\App\Language;

/** A speed as players say it: by how far the cue ball alone would run, across the table or along it. */
final class SpeedWords
{
    /** Up to so many lengths, and what that is called; a table is twice as long as wide. */
    private const LADDER = [
        [0.18, 'a touch'],
        [0.4, 'half across'],
        [0.62, 'across'],
        [0.87, 'across and half back'],
        [1.2, 'one length'],
        [1.6, 'a length and a half'],
        [2.3, 'up and back'],
        [3.3, 'up, back and up'],
        [4.5, 'twice up and back'],
        [6.0, 'firm'],
    ];

    /** @return list<string> */
    public static function all(): array
    {
        return [...array_column(self::LADDER, 1), 'hard'];
    }

    /** @param float $lengths table lengths */
    public static function of(float $lengths): string
    {
        foreach (self::LADDER as [$most, $word]) {
            if ($lengths <= $most) {
                return $word;
            }
        }

        return 'hard';
    }
}
