<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

/** What is commented on: its places are legs of a sheet's run, moves of a rack that was shot, tries of a drill's session. */
enum ThreadKind: string
{
    case Sheet = 'sheet';
    case Rack = 'rack';
    case Practice = 'practice';
}
