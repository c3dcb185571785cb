<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Psr\Log\LoggerInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Message\EraseSheet;
use ZigLane\App\Sheet\Trash;

#[AsMessageHandler]
final readonly class EraseSheetHandler
{
    public function __construct(private Trash $trash, private LoggerInterface $laneLogger)
    {
    }

    public function __invoke(EraseSheet $message): void
    {
        if ($this->trash->erase(RackSheet::class, $message->sheetId)) {
            $this->laneLogger->info('Erased a deleted rack sheet.', ['sheet' => $message->sheetId]);
        }
    }
}
