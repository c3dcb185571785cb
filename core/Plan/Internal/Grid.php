<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * Cue ball spots all over the bed, and values between them by straight interpolation along both sides. Values are lists in the
 * order of `spots`: column by column from the head rail, each from the right rail.
 *
 * @internal
 */
final readonly class Grid
{
    private const COLUMNS = 18;
    private const ROWS = 9;

    /** @var list<Spot> */
    public array $spots;

    private float $least;
    private float $stepX;
    private float $stepY;

    public function __construct(Equipment $equipment)
    {
        [$table, $balls] = [$equipment->table, $equipment->balls];
        $this->least = $balls->radius;
        $this->stepX = ($table->length - 2 * $balls->radius) / (self::COLUMNS - 1);
        $this->stepY = ($table->width() - 2 * $balls->radius) / (self::ROWS - 1);
        $spots = [];
        for ($i = 0; $i < self::COLUMNS; ++$i) {
            for ($j = 0; $j < self::ROWS; ++$j) {
                $spots[] = Spot::metres($this->least + $i * $this->stepX, $this->least + $j * $this->stepY);
            }
        }
        $this->spots = $spots;
    }

    /** @param list<float> $values */
    public function at(array $values, float $x, float $y): float
    {
        $u = ($x - $this->least) / $this->stepX;
        $v = ($y - $this->least) / $this->stepY;
        $u = $u < 0.0 ? 0.0 : ($u > self::COLUMNS - 1.0001 ? self::COLUMNS - 1.0001 : $u);
        $v = $v < 0.0 ? 0.0 : ($v > self::ROWS - 1.0001 ? self::ROWS - 1.0001 : $v);
        $i = (int) $u;
        $j = (int) $v;
        $u -= $i;
        $v -= $j;
        $k = $i * self::ROWS + $j;

        return (1 - $u) * ((1 - $v) * $values[$k] + $v * $values[$k + 1])
            + $u * ((1 - $v) * $values[$k + self::ROWS] + $v * $values[$k + self::ROWS + 1]);
    }
}
