<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

/** What has to be so after a try. */
enum TargetKind: string
{
    /** A ball stops in an area. */
    case Area = 'area';
    /** The cue ball stops farther along the table than after the try before. */
    case Past = 'past';
    /** No ball of those that are left, or one of them, can be met straight from where the cue ball stops. */
    case Hidden = 'hidden';
    /** From where the cue ball stops a next ball goes with the given odds. */
    case Zone = 'zone';
    /** So many balls were moved. */
    case Opened = 'opened';
}
