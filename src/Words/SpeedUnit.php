<?php

declare(strict_types=1);

namespace ZigLane\App\Words;

/** In what a player thinks of speeds, beside lengths of the table. */
enum SpeedUnit: string
{
    case MetresPerSecond = 'm/s';
    case MilesPerHour = 'mph';

    private const MILE_AN_HOUR = 0.44704;

    public function text(float $mps, int $decimals = 1): string
    {
        return number_format(self::MetresPerSecond === $this ? $mps : $mps / self::MILE_AN_HOUR, $decimals, '.', '').' '.$this->value;
    }
}
