<?php

declare(strict_types=1);

namespace ZigLane\App\Log;

/** What came of a try. */
enum TryResult: string
{
    case MadeWithPosition = 'position';
    case Made = 'made';
    case MissedSafe = 'safe';
    case SoldOut = 'sold';
}
