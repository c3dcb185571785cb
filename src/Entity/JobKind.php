<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

/** What a job works out. */
enum JobKind: string
{
    /** The run-out from a position. */
    case Plan = 'plan';
    /** Its attacks and safeties. */
    case Options = 'options';
}
