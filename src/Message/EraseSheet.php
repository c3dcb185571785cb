<?php

declare(strict_types=1);

namespace ZigLane\App\Message;

/** Erase a sheet that is still deleted when its time has come. */
final readonly class EraseSheet
{
    public function __construct(public string $sheetId)
    {
    }
}
