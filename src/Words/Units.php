<?php

declare(strict_types=1);

namespace ZigLane\App\Words;

/** In which units lengths and speeds are told. */
interface Units
{
    public function length(float $metres, int $decimals = 0): string;

    public function speed(float $mps): string;
}
