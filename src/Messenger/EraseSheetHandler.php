<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Psr\Log\LoggerInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Message\EraseSheet;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Sheet\SheetEditor;

#[AsMessageHandler]
final readonly class EraseSheetHandler
{
    public function __construct(
        private RackSheetRepository $sheets,
        private EntityManagerInterface $manager,
        private ClockInterface $clock,
        private LoggerInterface $laneLogger,
    ) {
    }

    public function __invoke(EraseSheet $message): void
    {
        $sheet = $this->sheets->find(Uuid::fromString($message->sheetId));
        // Brought back, or deleted again later with a message of its own: leave it.
        $due = $this->clock->now()->modify('-'.(SheetEditor::KEPT_DELETED - 1).' seconds');
        if (null === $sheet || null === $sheet->getDeletedAt() || $sheet->getDeletedAt() > $due) {
            return;
        }
        $this->manager->remove($sheet);
        $this->manager->flush();
        $this->laneLogger->info('Erased a deleted rack sheet.', ['sheet' => $message->sheetId]);
    }
}
