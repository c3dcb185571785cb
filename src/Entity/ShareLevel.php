<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

/** What somebody may do with what is shown to him; each may what those before it may. */
enum ShareLevel: string
{
    case Look = 'look';
    case Comment = 'comment';
    case Copy = 'copy';

    public function mayComment(): bool
    {
        return self::Look !== $this;
    }

    public function mayCopy(): bool
    {
        return self::Copy === $this;
    }
}
