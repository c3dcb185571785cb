<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

/** A command that reads a rack file. */
abstract class RackCommand extends FileCommand
{
    private const MAX_BYTES = 65536;

    protected function kind(): string
    {
        return 'rack';
    }

    protected function maxBytes(): int
    {
        return self::MAX_BYTES;
    }
}
