<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

/** The group of balls that the shooter plays in eight-ball. */
enum Group: string
{
    case Solids = 'solids';
    case Stripes = 'stripes';
    case Open = 'open';
}
