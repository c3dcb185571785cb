<?php

declare(strict_types=1);

namespace ZigLane\App\Message;

/** Work out what the shots of a rack cost. */
final readonly class CostRack implements OnlyOnce
{
    public function __construct(public string $rackId, public string $accountId)
    {
    }

    public function accountId(): string
    {
        return $this->accountId;
    }

    public function about(): string
    {
        return $this->rackId;
    }
}
