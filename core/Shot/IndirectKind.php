<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

/** How a ball is made other than straight. A shot that is several of them bears the name of the first here. */
enum IndirectKind: string
{
    /** The cue ball meets a cushion before any ball. */
    case Kick = 'kick';
    /** The ball that is made meets a cushion on its way. */
    case Bank = 'bank';
    /** The cue ball glances off another ball into the one that is made. */
    case Carom = 'carom';
    /** The ball that is made is struck by another object ball. */
    case Combination = 'combination';
}
