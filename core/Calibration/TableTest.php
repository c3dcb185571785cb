<?php

declare(strict_types=1);

namespace ZigLane\Core\Calibration;

use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Spot;

/** A shot of a table test and what was seen of it. */
final readonly class TableTest
{
    /**
     * @param Strike                                    $strike   as it was struck; its speed counts only where it is known
     * @param array<int, Spot|Pocket>                   $ends     where balls came to rest, or dropped, keyed by their numbers
     * @param array<int, list<array{Rail, float|null}>> $cushions of each ball that is named all its contacts in order: the rail, and where
     *                                                            along it, metres from its right or head end; null: not measured
     * @param float|null                                $seconds  from the hit until nothing moves along the cloth
     * @param float                                     $spot     standard deviation of ends and cushion points along each axis, metres
     * @param float                                     $watch    and of the time, seconds
     * @param string                                    $name     what the test is called
     */
    public function __construct(
        public Layout $layout,
        public Strike $strike,
        public bool $isSpeedKnown,
        public array $ends,
        public array $cushions = [],
        public ?float $seconds = null,
        public float $spot = 0.02,
        public float $watch = 0.1,
        public string $name = '',
    ) {
    }
}
