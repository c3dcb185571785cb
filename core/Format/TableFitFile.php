<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Calibration\Parameter;
use ZigLane\Core\Calibration\TableFit;
use ZigLane\Core\Fit\FittedNumber;

/** What the tests of a table taught, as `lane:calibrate` prints it. Format "zig-lane/table-fit", version 1. */
final class TableFitFile
{
    public const FORMAT = 'zig-lane/table-fit';

    /** @return array<string, mixed> */
    public static function toArray(TableFit $fit): array
    {
        $parameters = array_map(self::number(...), $fit->numbers);
        if (isset($parameters[Parameter::SlopeLong->value])) {
            $parameters['slope'] = ['value' => round($fit->equipment->table->slope, 4), 'interval' => self::steepness($fit)];
            $parameters['slopeDirection'] = ['value' => round($fit->equipment->table->slopeDirection, 1)];
        }

        return [
            'format' => self::FORMAT,
            'version' => 1,
            'parameters' => (object) $parameters,
            'unidentified' => array_map(static fn (Parameter $one): string => $one->value, $fit->left),
            'alike' => array_map(
                static fn (array $group): array => [
                    'singular' => round($group[0], 3),
                    'parameters' => array_map(static fn (Parameter $one): string => $one->value, $group[1]),
                ],
                $fit->alike,
            ),
            'contradicts' => array_map(
                static fn (int $test, float $off): array => ['test' => $test, 'deviations' => round($off, 1)],
                array_keys($fit->contradicts),
                array_values($fit->contradicts),
            ),
            'speeds' => array_map(static fn (float $speed): float => round($speed, 4), $fit->speeds),
        ];
    }

    /**
     * Of the slope's two parts what its size may be.
     *
     * @return array{float, float}
     */
    private static function steepness(TableFit $fit): array
    {
        $least = $most = 0.0;
        foreach ([Parameter::SlopeLong, Parameter::SlopeShort] as $part) {
            [$from, $to] = $fit->numbers[$part->value]->interval ?? [0.0, 0.0];
            $least += $from * $to > 0.0 ? min(abs($from), abs($to)) ** 2 : 0.0;
            $most += max(abs($from), abs($to)) ** 2;
        }

        return [round(\sqrt($least), 4), round(\sqrt($most), 4)];
    }

    /** @return array{value: float, interval: list<float>} */
    private static function number(FittedNumber $number): array
    {
        return [
            'value' => round($number->value, 5),
            'interval' => array_map(static fn (float $edge): float => round($edge, 5), $number->interval),
        ];
    }
}
