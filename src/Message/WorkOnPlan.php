<?php

declare(strict_types=1);

namespace ZigLane\App\Message;

/** Work on a plan until it is done, stopped, or its time is over. As many as are sent work on it side by side. */
final readonly class WorkOnPlan implements OfAccount
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
