<?php

declare(strict_types=1);

namespace ZigLane\App\Message;

/** Fit a player's errors to his log. */
final readonly class FitLog implements OnlyOnce
{
    public function __construct(public string $fitId, public string $accountId)
    {
    }

    public function accountId(): string
    {
        return $this->accountId;
    }

    public function about(): string
    {
        return $this->fitId;
    }
}
