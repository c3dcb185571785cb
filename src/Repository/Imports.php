<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\DBAL\ParameterType;
use Doctrine\Persistence\ManagerRegistry;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\ImportJob;
use ZigLane\App\Words\Refused;

/**
 * Imports and the files that they are of, which wait in the database for a worker on whichever machine.
 *
 * @extends ServiceEntityRepository<ImportJob>
 */
final class Imports extends ServiceEntityRepository
{
    use WorkedOn {
        finish as private finishJob;
    }

    private const TABLE = 'import_job';
    /** Bytes of a part before it is packed. */
    private const PART = 1_048_576;

    public function __construct(ManagerRegistry $registry, private readonly ClockInterface $clock)
    {
        parent::__construct($registry, ImportJob::class);
    }

    /**
     * Keeps a file to be taken in.
     *
     * @throws Refused If another of this account is under way
     */
    public function begin(Account $owner, bool $isLog, string $path): ImportJob
    {
        $file = fopen($path, 'r');
        if (false === $file) {
            throw Refused::because('noFile', ['mib' => 200]);
        }
        if (true === $this->latest($owner)?->isOpen()) {
            throw Refused::because('importUnderWay');
        }
        $job = new ImportJob($owner, $isLog, $this->clock->now());
        $connection = $this->getEntityManager()->getConnection();
        try {
            $this->getEntityManager()->wrapInTransaction(function () use ($job, $file, $connection): void {
                $this->getEntityManager()->persist($job);
                $this->getEntityManager()->flush();
                for ($number = 0; !feof($file); ++$number) {
                    $connection->executeStatement(
                        'INSERT INTO import_part (import_id, number, bytes) VALUES (?, ?, ?)',
                        [$job->getId()->toBinary(), $number, gzcompress((string) fread($file, self::PART), 1)],
                        [ParameterType::BINARY, ParameterType::INTEGER, ParameterType::LARGE_OBJECT],
                    );
                }
            });
        } catch (UniqueConstraintViolationException) {
            throw Refused::because('importUnderWay');
        } finally {
            fclose($file);
        }

        return $job;
    }

    public function latest(Account $owner): ?ImportJob
    {
        return $this->findOneBy(['owner' => $owner], ['id' => 'DESC']);
    }

    /** Writes the file of an import to a path. */
    public function unpack(Uuid $id, string $path): void
    {
        $parts = $this->getEntityManager()->getConnection()->iterateColumn(
            'SELECT bytes FROM import_part WHERE import_id = ? ORDER BY number',
            [$id->toBinary()],
        );
        $file = fopen($path, 'w');
        if (false === $file) {
            throw new \RuntimeException('No room for an import.');
        }
        foreach ($parts as $part) {
            fwrite($file, \is_string($part) ? (string) gzuncompress($part) : '');
        }
        fclose($file);
    }

    /** @param array{taken: array<string, int>, failed: list<string>}|null $answer */
    public function finish(Uuid $id, ?array $answer): void
    {
        $connection = $this->getEntityManager()->getConnection();
        $connection->executeStatement('DELETE FROM import_part WHERE import_id = ?', [$id->toBinary()]);
        $this->finishJob($id, $answer);
        $connection->executeStatement('UPDATE import_job SET under_way = NULL WHERE id = ?', [$id->toBinary()]);
    }
}
