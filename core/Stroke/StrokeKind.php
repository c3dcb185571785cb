<?php

declare(strict_types=1);

namespace ZigLane\Core\Stroke;

/** What a stroke is called by what the cue ball's spin is when it meets the object ball. */
enum StrokeKind: string
{
    /** No spin, full on the ball. */
    case Stop = 'stop';
    /** No spin, at an angle. */
    case Stun = 'stun';
    /** Less than rolling. */
    case StunRunThrough = 'stunRunThrough';
    /** Rolling. */
    case Follow = 'follow';
    /** More than rolling. */
    case ForceFollow = 'forceFollow';
    /** Backspin. */
    case Draw = 'draw';
    /** Struck low, but rolling when it arrives. */
    case Drag = 'drag';
}
