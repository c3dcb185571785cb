<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Lesson;

/**
 * Lessons of a coach's library.
 *
 * @extends ServiceEntityRepository<Lesson>
 */
final class Lessons extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Lesson::class);
    }

    public function deletedOrNot(Account $owner, string $id): ?Lesson
    {
        return Uuid::isValid($id) ? $this->findOneBy(['id' => Uuid::fromString($id), 'owner' => $owner]) : null;
    }

    public function ownedBy(Account $owner, string $id): ?Lesson
    {
        $lesson = $this->deletedOrNot($owner, $id);

        return true === $lesson?->isDeleted() ? null : $lesson;
    }

    /** @return list<Lesson> the latest change first */
    public function all(Account $owner): array
    {
        return $this->findBy(['owner' => $owner, 'deletedAt' => null], ['updatedAt' => 'DESC', 'id' => 'DESC'], 500);
    }
}
