<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Practice\Par;

/** What simulated players score in a drill, as a file. Format "zig-lane/par", version 1. */
final readonly class ParFile
{
    public function __construct(private string $name, private Par $par)
    {
    }

    public function write(): string
    {
        $share = $this->par->passShare();

        return json_encode([
            'format' => 'zig-lane/par',
            'version' => 1,
            'drill' => $this->name,
            'runs' => $this->par->runs(),
            'mean' => round($this->par->mean(), 3),
            'deviation' => round($this->par->deviation(), 3),
            'scores' => (object) $this->par->scores,
            'pass' => null === $share ? null : round($share, 4),
            ...(null === $this->par->why ? [] : ['why' => $this->par->why]),
        ], \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE);
    }
}
