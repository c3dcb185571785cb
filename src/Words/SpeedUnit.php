<?php

declare(strict_types=1);

namespace ZigLane\App\Words;

use ZigLane\App\Language\SpeedWords;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Stroke\LengthScale;
use ZigLane\Core\Table\Equipment;

/** In what a player thinks of speeds, beside lengths of the table. */
enum SpeedUnit: string
{
    case MetresPerSecond = 'm/s';
    case MilesPerHour = 'mph';
    /** By how far the cue ball would run, on the usual table. */
    case InWords = 'words';

    private const MILE_AN_HOUR = 0.44704;

    public function text(float $mps, int $decimals = 1): string
    {
        if (self::InWords === $this) {
            return SpeedWords::of((new LengthScale(new Equipment()))->lengths(max(0.01, min(Strike::MAX_SPEED, $mps))));
        }

        return number_format(self::MetresPerSecond === $this ? $mps : $mps / self::MILE_AN_HOUR, $decimals, '.', '').' '.$this->value;
    }
}
