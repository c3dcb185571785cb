<?php

declare(strict_types=1);

namespace ZigLane\Core\Log;

/** How a rack ended for the player. */
enum RackResult: string
{
    case Out = 'out';
    case Miss = 'miss';
    case Scratch = 'scratch';
    case Foul = 'foul';
    case Safety = 'safety';
    case Hooked = 'hooked';
    case Lost = 'lost';
    case Left = 'left';
}
