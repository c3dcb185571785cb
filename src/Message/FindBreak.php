<?php

declare(strict_types=1);

namespace ZigLane\App\Message;

/** Find the break that brings a player the most run-outs. */
final readonly class FindBreak implements OnlyOnce
{
    public function __construct(public string $jobId, public string $accountId)
    {
    }

    public function accountId(): string
    {
        return $this->accountId;
    }

    public function about(): string
    {
        return $this->jobId;
    }
}
