<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;

/** A file that is not valid, with every fault that was found in it. */
final class InvalidFile extends \DomainException implements CoreError
{
    /** @param non-empty-list<Fault> $faults */
    public function __construct(public readonly array $faults)
    {
        parent::__construct(implode("\n", array_map(static fn (Fault $fault): string => $fault->path.': '.$fault->fact, $faults)));
    }

    /** Of one fault. */
    public static function because(string $path, Fact $fact): self
    {
        return new self([new Fault($path, $fact)]);
    }

    public function fact(): Fact
    {
        return $this->faults[0]->fact;
    }
}
