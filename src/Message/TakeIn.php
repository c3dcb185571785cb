<?php

declare(strict_types=1);

namespace ZigLane\App\Message;

/** Take a file into an account. */
final readonly class TakeIn implements OnlyOnce
{
    public function __construct(public string $importId, public string $accountId)
    {
    }

    public function accountId(): string
    {
        return $this->accountId;
    }

    public function about(): string
    {
        return $this->importId;
    }
}
