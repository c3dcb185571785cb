<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Entity\DrillTry;

/** @extends ServiceEntityRepository<DrillSession> */
final class DrillSessions extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, DrillSession::class);
    }

    public function ownedBy(Account $owner, string $id): ?DrillSession
    {
        return Uuid::isValid($id) ? $this->findOneBy(['id' => Uuid::fromString($id), 'owner' => $owner]) : null;
    }

    /** @return list<DrillTry> in order */
    public function tries(DrillSession $session): array
    {
        return $this->getEntityManager()->getRepository(DrillTry::class)->findBy(['session' => $session], ['number' => 'ASC']);
    }

    public function try(Uuid $id): ?DrillTry
    {
        return $this->getEntityManager()->find(DrillTry::class, $id);
    }

    /** @return list<DrillSession> of one drill, the latest first */
    public function ofDrill(Account $owner, string $key, int $most = 200): array
    {
        return $this->findBy(['owner' => $owner, 'key' => $key], ['startedAt' => 'DESC', 'id' => 'DESC'], $most);
    }

    /** @return list<DrillSession> scored ones that have ended, the first first */
    public function scored(Account $owner, \DateTimeImmutable $since): array
    {
        $found = $this->createQueryBuilder('s')
            ->where('s.owner = :owner AND s.isScored = true AND s.endedAt IS NOT NULL AND s.startedAt >= :since')
            ->setParameter('owner', $owner->getId(), 'uuid')
            ->setParameter('since', $since)
            ->orderBy('s.startedAt', 'ASC')
            ->setMaxResults(2000)
            ->getQuery()
            ->getResult();
        \assert(\is_array($found));

        return array_values(array_filter($found, static fn (mixed $one): bool => $one instanceof DrillSession));
    }

    public function underWay(Account $owner, string $key): ?DrillSession
    {
        return $this->findOneBy(['owner' => $owner, 'key' => $key, 'endedAt' => null], ['startedAt' => 'DESC']);
    }
}
