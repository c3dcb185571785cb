<?php

declare(strict_types=1);

namespace ZigLane\App\Message;

/** A message that is somebody's work: the queue serves those first who have least of theirs under way. */
interface OfAccount
{
    public function accountId(): string;

    /** The id of what it is about; empty where it is about nothing that is kept. */
    public function about(): string;
}
