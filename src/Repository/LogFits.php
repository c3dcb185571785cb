<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;
use Psr\Clock\ClockInterface;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\LogFitJob;

/**
 * Fits of logs, and what a worker does to them: each change is a statement of its own.
 *
 * @extends ServiceEntityRepository<LogFitJob>
 */
final class LogFits extends ServiceEntityRepository
{
    use WorkedOn;

    private const TABLE = 'log_fit';

    public function __construct(ManagerRegistry $registry, private readonly ClockInterface $clock)
    {
        parent::__construct($registry, LogFitJob::class);
    }

    public function latest(Account $owner): ?LogFitJob
    {
        return $this->findOneBy(['owner' => $owner], ['id' => 'DESC']);
    }

    /** The latest that has an answer. */
    public function latestDone(Account $owner): ?LogFitJob
    {
        $fit = $this->createQueryBuilder('f')
            ->where('f.owner = :owner AND f.answer IS NOT NULL')
            ->setParameter('owner', $owner->getId(), 'uuid')
            ->orderBy('f.id', 'DESC')
            ->setMaxResults(1)
            ->getQuery()
            ->getOneOrNullResult();

        return $fit instanceof LogFitJob ? $fit : null;
    }

    /** As the database has it: a worker's own statements are not in what it has loaded. */
    public function reload(LogFitJob $fit): void
    {
        $this->getEntityManager()->refresh($fit);
    }
}
