<?php

declare(strict_types=1);

namespace ZigLane\App\Form;

/** A name that others see: something of it can be seen, and nothing in it turns the direction of what stands beside it. */
final class ShownName
{
    /** Characters of which nothing is seen: blanks, controls, marks that need another, fillers. */
    private const VISIBLE = '/[^\p{Z}\p{C}\p{M}\x{2800}\x{3164}\x{115F}\x{1160}\x{FFA0}]/u';
    private const TURNING = '/[\x{061C}\x{200E}\x{200F}\x{202A}-\x{202E}\x{2066}-\x{2069}\p{Cc}]/u';

    public static function isOne(string $name): bool
    {
        return 1 === preg_match(self::VISIBLE, $name) && 0 === preg_match(self::TURNING, $name);
    }
}
