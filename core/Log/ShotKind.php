<?php

declare(strict_types=1);

namespace ZigLane\Core\Log;

/** What kind of shot was logged. */
enum ShotKind: string
{
    case Pot = 'pot';
    case Combination = 'combination';
    case Carom = 'carom';
    case Bank = 'bank';
    case Kick = 'kick';
    case Safety = 'safety';
    case Break = 'break';
}
