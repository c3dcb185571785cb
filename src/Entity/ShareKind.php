<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

/** What can be shown to somebody. */
enum ShareKind: string
{
    /** A sheet with its layout alone. */
    case Sheet = 'sheet';
    /** A sheet with its run, leg by leg. */
    case Plan = 'plan';
    case Drill = 'drill';
    /** The set-up card of a drill. */
    case Card = 'card';
    case Lesson = 'lesson';
    /** A day of the log. */
    case Day = 'day';

    public function isOfSheet(): bool
    {
        return self::Sheet === $this || self::Plan === $this;
    }
}
