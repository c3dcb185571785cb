<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Messenger\Stamp\DelayStamp;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Deletable;

/** What is deleted is hidden at once and erased later by a worker unless it is brought back. */
final readonly class Trash
{
    /** How long it can be brought back, seconds. */
    private const KEPT = 600;

    public function __construct(
        private EntityManagerInterface $manager,
        private ClockInterface $clock,
        private MessageBusInterface $bus,
    ) {
    }

    /** @param object $erase the message that has it erased when its time has come */
    public function put(Deletable $it, object $erase): void
    {
        $it->delete($this->clock->now());
        $this->manager->wrapInTransaction(function () use ($erase): void {
            $this->manager->flush();
            $this->bus->dispatch($erase, [new DelayStamp(1000 * self::KEPT)]);
        });
    }

    public function restore(Deletable $it): void
    {
        $it->restore();
        $this->manager->flush();
    }

    /**
     * @param class-string<Deletable> $class
     *
     * @return bool false where it is gone, was brought back, or was deleted again later with a message of its own: it is left then
     */
    public function erase(string $class, string $id): bool
    {
        $it = $this->manager->find($class, Uuid::fromString($id));
        $due = $this->clock->now()->modify('-'.(self::KEPT - 1).' seconds');
        if (null === $it || null === $it->getDeletedAt() || $it->getDeletedAt() > $due) {
            return false;
        }
        $this->manager->remove($it);
        $this->manager->flush();

        return true;
    }
}
