<?php

declare(strict_types=1);

namespace ZigLane\App\Work;

/** Every worker that took a message ended in the midst of it, so it is not given to another. */
final readonly class WorkLost
{
    public function __construct(public object $message)
    {
    }
}
