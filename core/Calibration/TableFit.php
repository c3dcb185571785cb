<?php

declare(strict_types=1);

namespace ZigLane\Core\Calibration;

use ZigLane\Core\Fit\FittedNumber;
use ZigLane\Core\Table\Equipment;

/** What the tests of a table taught. */
final readonly class TableFit
{
    /**
     * @param array<string, FittedNumber>         $numbers     by Parameter, those that the tests taught
     * @param list<Parameter>                     $left        those of which they say too little: they are what they were
     * @param list<float>                         $speeds      of the shots, m/s
     * @param array<int, float>                   $contradicts tests that do not go with the others, the worst first, each with how many
     *                                                         standard deviations it lies off
     * @param list<array{float, list<Parameter>}> $alike       directions among the constants with their singular values, the least told
     *                                                         first
     */
    public function __construct(
        public array $numbers,
        public array $left,
        public array $speeds,
        public array $contradicts,
        public array $alike,
        public Equipment $equipment,
        public int $shots,
    ) {
    }
}
