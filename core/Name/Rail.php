<?php

declare(strict_types=1);

namespace ZigLane\Core\Name;

/** The four rails: head (x = 0), foot (x = L), right (y = 0), left (y = W). */
enum Rail: string
{
    case Head = 'head';
    case Foot = 'foot';
    case Right = 'right';
    case Left = 'left';

    /** True for the head and foot rail, along which diamonds run 0 to 4 from the right; the others run 0 to 8 from the head. */
    public function isShort(): bool
    {
        return self::Head === $this || self::Foot === $this;
    }
}
