<?php

declare(strict_types=1);

namespace ZigLane\Core\Stroke;

/** What a stroke can hurt: people, cloth, table. Many rooms forbid some of it (common practice). */
enum Caution: string
{
    /** A cue raised so steeply (jump or masse) can tear the cloth and throw a ball off the table. */
    case RaisedCue = 'raisedCue';
    /** At break speed a ball can leave the table. */
    case BreakSpeed = 'breakSpeed';
}
