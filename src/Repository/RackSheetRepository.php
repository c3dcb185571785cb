<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\DBAL\Types\Types;
use Doctrine\Persistence\ManagerRegistry;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\LayoutStep;
use ZigLane\App\Entity\RackSheet;

/** @extends ServiceEntityRepository<RackSheet> */
final class RackSheetRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, RackSheet::class);
    }

    /** How many an account has, without those that it has deleted. */
    public function countOf(Account $owner): int
    {
        return $this->count(['owner' => $owner, 'deletedAt' => null]);
    }

    /**
     * Sheets of an owner, the latest change first.
     *
     * @param RackSheet|null $after those that come after this one of his
     * @param string         $name  that their names hold; empty for all
     *
     * @return list<RackSheet>
     */
    public function ofOwner(Account $owner, int $most, ?RackSheet $after = null, string $name = ''): array
    {
        $query = $this->createQueryBuilder('s')
            ->where('s.owner = :owner AND s.deletedAt IS NULL')
            ->setParameter('owner', $owner->getId(), UuidType::NAME)
            ->orderBy('s.updatedAt', 'DESC')
            ->addOrderBy('s.id', 'DESC')
            ->setMaxResults($most);
        if (null !== $after) {
            $query->andWhere('s.updatedAt < :at OR (s.updatedAt = :at AND s.id < :id)')
                ->setParameter('at', $after->getUpdatedAt(), Types::DATETIME_IMMUTABLE)
                ->setParameter('id', $after->getId(), UuidType::NAME);
        }
        if ('' !== $name) {
            $query->andWhere('s.name LIKE :name')->setParameter('name', '%'.addcslashes($name, '%_\\').'%');
        }

        /** @var list<RackSheet> $found */
        $found = $query->getQuery()->getResult();

        return $found;
    }

    /** The sheet only if it is this account's and not deleted: anyone else's is not found. */
    public function ownedBy(Account $owner, string $id): ?RackSheet
    {
        $sheet = $this->deletedOrNot($owner, $id);

        return null === $sheet || $sheet->isDeleted() ? null : $sheet;
    }

    public function deletedOrNot(Account $owner, string $id): ?RackSheet
    {
        return Uuid::isValid($id) ? $this->findOneBy(['id' => Uuid::fromString($id), 'owner' => $owner]) : null;
    }

    public function ofSubmission(Account $owner, Uuid $submission): ?RackSheet
    {
        return $this->findOneBy(['submission' => $submission, 'owner' => $owner]);
    }

    public function step(RackSheet $sheet, int $number): ?LayoutStep
    {
        return $this->getEntityManager()->getRepository(LayoutStep::class)->findOneBy(['sheet' => $sheet, 'number' => $number]);
    }

    /** Number of the last step that redo can reach. */
    public function lastStep(RackSheet $sheet): int
    {
        return (int) $this->getEntityManager()
            ->createQuery('SELECT MAX(s.number) FROM '.LayoutStep::class.' s WHERE s.sheet = :sheet')
            ->setParameter('sheet', $sheet->getId(), UuidType::NAME)
            ->getSingleScalarResult();
    }

    /** Number of the first step that undo can reach. */
    public function firstStep(RackSheet $sheet): int
    {
        return (int) $this->getEntityManager()
            ->createQuery('SELECT MIN(s.number) FROM '.LayoutStep::class.' s WHERE s.sheet = :sheet')
            ->setParameter('sheet', $sheet->getId(), UuidType::NAME)
            ->getSingleScalarResult();
    }

    /** Forgets the steps after `$last` and those before `$first`. */
    public function keepSteps(RackSheet $sheet, int $first, int $last): void
    {
        $this->getEntityManager()
            ->createQuery('DELETE FROM '.LayoutStep::class.' s WHERE s.sheet = :sheet AND (s.number > :last OR s.number < :first)')
            ->setParameter('sheet', $sheet->getId(), UuidType::NAME)
            ->setParameter('first', $first)
            ->setParameter('last', $last)
            ->execute();
    }
}
