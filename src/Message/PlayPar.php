<?php

declare(strict_types=1);

namespace ZigLane\App\Message;

/** Play a drill many times by simulated players. */
final readonly class PlayPar implements OnlyOnce
{
    public function __construct(public string $parId, public string $accountId)
    {
    }

    public function accountId(): string
    {
        return $this->accountId;
    }

    public function about(): string
    {
        return $this->parId;
    }
}
