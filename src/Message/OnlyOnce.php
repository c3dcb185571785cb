<?php

declare(strict_types=1);

namespace ZigLane\App\Message;

/** Work of which one message in the queue is enough: asked for again while it waits, it is not put there again. */
interface OnlyOnce extends OfAccount
{
}
