<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Fact\Fact;

/** One fault of a file: the JSON path where it stands (empty for the whole file), what was found and what is allowed. */
final readonly class Fault
{
    public function __construct(public string $path, public Fact $fact)
    {
    }
}
