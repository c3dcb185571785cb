<?php

declare(strict_types=1);

namespace ZigLane\Core\Log;

/** What a rack was shot for. */
enum RackKind: string
{
    case Practice = 'practice';
    case Match = 'match';
    case Tries = 'tries';
    case Drill = 'drill';
}
