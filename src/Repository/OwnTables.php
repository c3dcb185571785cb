<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\OwnTable;

/**
 * Tables of players, and what a worker does to them: each change is a statement of its own.
 *
 * @extends ServiceEntityRepository<OwnTable>
 */
final class OwnTables extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, OwnTable::class);
    }

    public function ownedBy(Account $owner, string $id): ?OwnTable
    {
        return Uuid::isValid($id) ? $this->findOneBy(['id' => Uuid::fromString($id), 'owner' => $owner]) : null;
    }

    /** @return list<OwnTable> */
    public function all(Account $owner): array
    {
        return $this->findBy(['owner' => $owner], ['name' => 'ASC', 'id' => 'ASC'], 200);
    }

    /** @return bool whether it is still wanted */
    public function progress(Uuid $id, float $share): bool
    {
        $this->execute('UPDATE own_table SET progress = ? WHERE id = ? AND asked_at IS NOT NULL', [round($share, 3), $id->toBinary()]);

        return false !== $this->getEntityManager()->getConnection()->fetchOne(
            'SELECT 1 FROM own_table WHERE id = ? AND asked_at IS NOT NULL',
            [$id->toBinary()],
        );
    }

    /**
     * What a fit came to; one that was asked for again, or of a table whose tests have changed since, is passed over.
     *
     * @param array<mixed>|null $fit null: it failed
     */
    public function finish(Uuid $id, \DateTimeImmutable $askedAt, ?array $fit): void
    {
        $this->execute(
            'UPDATE own_table SET fit = COALESCE(?, fit), asked_at = NULL, progress = 1, version = version + 1'
            .' WHERE id = ? AND asked_at = ?',
            [null === $fit ? null : json_encode($fit, \JSON_THROW_ON_ERROR), $id->toBinary(), $askedAt->format('Y-m-d H:i:s')],
        );
    }

    /** @param list<mixed> $values */
    private function execute(string $sql, array $values): void
    {
        $this->getEntityManager()->getConnection()->executeStatement($sql, $values);
    }
}
