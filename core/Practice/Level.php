<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

/** An easier or harder form of a drill: what of it is otherwise, as a merge patch of its file (RFC 7386). */
final readonly class Level
{
    /** @param array<mixed> $edits */
    public function __construct(public string $name, public array $edits)
    {
    }
}
