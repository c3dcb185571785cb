<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Message\EraseRack;
use ZigLane\App\Sheet\SheetEditor;

#[AsMessageHandler]
final readonly class EraseRackHandler
{
    public function __construct(private EntityManagerInterface $manager, private ClockInterface $clock)
    {
    }

    public function __invoke(EraseRack $message): void
    {
        $rack = $this->manager->find(ShotRack::class, Uuid::fromString($message->rackId));
        // Brought back, or deleted again later with a message of its own: leave it.
        $due = $this->clock->now()->modify('-'.(SheetEditor::KEPT_DELETED - 1).' seconds');
        if (null === $rack || null === $rack->getDeletedAt() || $rack->getDeletedAt() > $due) {
            return;
        }
        $this->manager->remove($rack);
        $this->manager->flush();
    }
}
