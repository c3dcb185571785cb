<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Message\EraseRack;
use ZigLane\App\Sheet\Trash;

#[AsMessageHandler]
final readonly class EraseRackHandler
{
    public function __construct(private Trash $trash)
    {
    }

    public function __invoke(EraseRack $message): void
    {
        $this->trash->erase(ShotRack::class, $message->rackId);
    }
}
