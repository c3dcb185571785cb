<?php

declare(strict_types=1);

namespace ZigLane\App\Message;

/** Score what a pupil predicted of a position against the best plan. */
final readonly class ScoreAnswer implements OnlyOnce
{
    public function __construct(public string $answerId, public string $accountId)
    {
    }

    public function accountId(): string
    {
        return $this->accountId;
    }

    public function about(): string
    {
        return $this->answerId;
    }
}
