<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

/** What a drill trains. */
enum Skill: string
{
    case Speed = 'speed';
    case Direction = 'direction';
    case Pot = 'pot';
    case Position = 'position';
    case Safety = 'safety';
    case Break = 'break';
}
