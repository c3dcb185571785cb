<?php

declare(strict_types=1);

namespace ZigLane\Core\Stroke;

/** How a player comes to a shot from beside the table. */
enum Reach: string
{
    /** Standing, or leaning as on any shot. */
    case Easy = 'easy';
    /** Over the rail as far as he can with a foot on the floor. */
    case Stretched = 'stretched';
    /** Only with the rest, or the other hand. */
    case Rest = 'rest';
}
