<?php

declare(strict_types=1);

namespace ZigLane\App\Words;

/** Those of a player, and where nobody has chosen centimetres and m/s. */
final readonly class UsualUnits implements Units
{
    public function __construct(
        private LengthUnit $length = LengthUnit::Centimetres,
        private SpeedUnit $speed = SpeedUnit::MetresPerSecond,
    ) {
    }

    public function length(float $metres, int $decimals = 0): string
    {
        return $this->length->text($metres, $decimals);
    }

    public function speed(float $mps): string
    {
        return $this->speed->text($mps);
    }
}
