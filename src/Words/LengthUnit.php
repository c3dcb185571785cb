<?php

declare(strict_types=1);

namespace ZigLane\App\Words;

/** In what a player measures at the table. */
enum LengthUnit: string
{
    case Centimetres = 'cm';
    case Inches = 'in';

    private const INCH = 0.0254;

    public function text(float $metres, int $decimals = 0): string
    {
        return self::Centimetres === $this
            ? number_format(100 * $metres, $decimals, '.', '').' cm'
            // A whole inch is two and a half centimetres: a decimal more says as much.
            : number_format($metres / self::INCH, $decimals + (abs($metres) < 0.5 ? 1 : 0), '.', '').' in';
    }
}
