<?php

declare(strict_types=1);

namespace ZigLane\Core\Stroke;

/** The hand that holds the cue; the other makes the bridge. */
enum Hand: string
{
    case Right = 'right';
    case Left = 'left';

    public function other(): self
    {
        return self::Right === $this ? self::Left : self::Right;
    }
}
