<?php

declare(strict_types=1);

namespace ZigLane\App\Log;

use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Plan\ShotCost;

/** What a logged shot cost, as it is kept with its rack. */
final class LoggedCost
{
    /** @return array<string, mixed> */
    public static function toArray(ShotCost $cost): array
    {
        return [
            'best' => $cost->best,
            'chosen' => $cost->chosen,
            'after' => $cost->after,
            'error' => $cost->error,
            'passed' => null === $cost->passed ? null : RackFile::shotToArray($cost->passed),
        ];
    }

    /** Null where nothing could be worked out. */
    public static function read(mixed $kept): ?ShotCost
    {
        if (!\is_array($kept)) {
            return null;
        }
        $number = static fn (string $field): float => is_numeric($kept[$field] ?? null) ? (float) $kept[$field] : 0.0;
        try {
            $passed = \is_array($kept['passed'] ?? null) ? RackFile::shotFromArray($kept['passed']) : null;
        } catch (InvalidFile) {
            $passed = null;
        }

        return new ShotCost($number('best'), $number('chosen'), $number('after'), $number('error'), $passed);
    }
}
