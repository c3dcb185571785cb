<?php

declare(strict_types=1);

namespace ZigLane\App\Message;

/** Erase a rack of a log that is still deleted when its time has come. */
final readonly class EraseRack
{
    public function __construct(public string $rackId)
    {
    }
}
