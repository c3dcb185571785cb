<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;

/** What was computed took longer than whoever asked would wait. */
final class OutOfTime extends \RuntimeException implements CoreError
{
    public function fact(): Fact
    {
        return new Fact('simulation.outOfTime');
    }
}
