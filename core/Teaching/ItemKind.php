<?php

declare(strict_types=1);

namespace ZigLane\Core\Teaching;

/** What stands in a lesson. */
enum ItemKind: string
{
    case Text = 'text';
    case Drill = 'drill';
    /** A rack with a question. */
    case Position = 'position';
    /** A run, to be stepped through. */
    case Plan = 'plan';
}
