<?php

declare(strict_types=1);

namespace ZigLane\App\Message;

/** Find the constants of a player's table from its tests. */
final readonly class FitTable implements OnlyOnce
{
    public function __construct(public string $tableId, public string $accountId)
    {
    }

    public function accountId(): string
    {
        return $this->accountId;
    }

    public function about(): string
    {
        return $this->tableId;
    }
}
