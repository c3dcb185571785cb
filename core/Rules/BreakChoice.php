<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

/** What the player who comes to the table after a break may choose. */
enum BreakChoice: string
{
    /** Shoot on from the table as it lies. */
    case Accept = 'accept';
    /** Have the rack made again and break it himself. */
    case BreakSelf = 'breakSelf';
    /** Have the one who broke break again. */
    case BreakAgain = 'breakAgain';
    /** Spot the 8 and shoot on. */
    case SpotEight = 'spotEight';
}
