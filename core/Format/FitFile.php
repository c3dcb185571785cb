<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Fit\FittedNumber;
use ZigLane\Core\Fit\LogFit;
use ZigLane\Core\Player\Biases;
use ZigLane\Core\Player\ExecutionErrors;

/** A player's errors as his log shows them, as `lane:fit` prints them. Format "zig-lane/fit", version 1. */
final class FitFile
{
    public const FORMAT = 'zig-lane/fit';

    /** @return array<string, mixed> */
    public static function toArray(LogFit $fit): array
    {
        return [
            'format' => self::FORMAT,
            'version' => 1,
            'shots' => $fit->shots,
            'used' => $fit->used,
            'deviations' => array_map(self::number(...), $fit->deviations),
            'biases' => array_map(self::number(...), $fit->biases),
            'unidentified' => $fit->unidentified(),
        ];
    }

    /**
     * The player of a written fit: what the log cannot tell is at its prior, biases that it cannot tell are none.
     *
     * @param array<mixed> $document as toArray gives it
     */
    public static function player(array $document): ExecutionErrors
    {
        $deviations = $biases = [];
        foreach (LogFit::FIELDS as $field) {
            [, $least, $most] = ExecutionErrors::LIMITS[$field];
            $deviations[$field] = max($least, min($most, self::value($document['deviations'] ?? null, $field)));
            [, $least, $most] = Biases::LIMITS[$field];
            $isKnown = !\in_array("biases.$field", \is_array($document['unidentified'] ?? null) ? $document['unidentified'] : [], true);
            $biases[$field] = $isKnown ? max($least, min($most, self::value($document['biases'] ?? null, $field))) : 0.0;
        }

        return new ExecutionErrors(...$deviations, biases: new Biases(...$biases));
    }

    private static function value(mixed $numbers, string $field): float
    {
        $number = \is_array($numbers) ? $numbers[$field] ?? null : null;
        $value = \is_array($number) ? $number['value'] ?? null : null;

        return is_numeric($value) ? (float) $value : 0.0;
    }

    /** @return array<string, float|list<float>> */
    private static function number(FittedNumber $number): array
    {
        return [
            'value' => round($number->value, 5),
            'interval' => array_map(static fn (float $edge): float => round($edge, 5), $number->interval),
            ...(null === $number->prior ? [] : ['prior' => round($number->prior, 5)]),
        ];
    }
}
