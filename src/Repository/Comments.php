<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Comment;
use ZigLane\App\Entity\ThreadKind;

/**
 * Comments, and how far each reader has come.
 *
 * @extends ServiceEntityRepository<Comment>
 */
final class Comments extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Comment::class);
    }

    public function howMany(ThreadKind $thread, Uuid $subject): int
    {
        return $this->count(['thread' => $thread, 'subject' => $subject, 'removedAt' => null]);
    }

    /** @return list<Comment> the latest, in the order in which they were written; about one place where that is asked for */
    public function latest(ThreadKind $thread, Uuid $subject, int $most, ?int $place = null): array
    {
        $which = ['thread' => $thread, 'subject' => $subject, 'removedAt' => null] + (null === $place ? [] : ['place' => $place]);

        return array_reverse($this->findBy($which, ['id' => 'DESC'], $most));
    }

    /** @return array<int, int> how many by place */
    public function places(ThreadKind $thread, Uuid $subject): array
    {
        $counts = [];
        $rows = $this->getEntityManager()->getConnection()->fetchAllKeyValue(
            'SELECT place, COUNT(*) FROM comment WHERE thread = ? AND subject = ? AND removed_at IS NULL GROUP BY place',
            [$thread->value, $subject->toBinary()],
        );
        foreach ($rows as $place => $count) {
            $counts[(int) $place] = is_numeric($count) ? (int) $count : 0;
        }

        return $counts;
    }

    /** When somebody read a thread last. */
    public function seen(Account $reader, Uuid $subject): ?\DateTimeImmutable
    {
        $at = $this->getEntityManager()->getConnection()->fetchOne(
            'SELECT seen_at FROM thread_seen WHERE reader_id = ? AND subject = ?',
            [$reader->getId()->toBinary(), $subject->toBinary()],
        );

        return \is_string($at) ? new \DateTimeImmutable($at) : null;
    }

    public function see(Account $reader, Uuid $subject, \DateTimeImmutable $now): void
    {
        $this->getEntityManager()->getConnection()->executeStatement(
            'INSERT INTO thread_seen (reader_id, subject, seen_at) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE seen_at = VALUES(seen_at)',
            [$reader->getId()->toBinary(), $subject->toBinary(), $now->format('Y-m-d H:i:s')],
        );
    }

    /**
     * Threads of somebody's own things, or in which he wrote, that hold something newer than he has read.
     *
     * @return list<array{thread: ThreadKind, subject: Uuid, count: int}>
     */
    public function unread(Account $reader): array
    {
        /** @var list<array{thread: string, subject: string, count: int}> $rows */
        $rows = $this->getEntityManager()->getConnection()->fetchAllAssociative(
            'SELECT c.thread, c.subject, COUNT(*) AS count FROM ('
            .' SELECT id FROM rack_sheet WHERE owner_id = :me AND deleted_at IS NULL'
            .' UNION SELECT id FROM shot_rack WHERE owner_id = :me AND deleted_at IS NULL'
            .' UNION SELECT id FROM drill_session WHERE owner_id = :me'
            .' UNION SELECT subject FROM comment WHERE author_id = :me'
            ." UNION SELECT UNHEX(REPLACE(subject, '-', '')) FROM share WHERE grantee_id = :me AND withdrawn_at IS NULL"
            ." AND kind IN ('sheet', 'plan')) mine"
            .' JOIN comment c ON c.subject = mine.id LEFT JOIN thread_seen s ON s.subject = c.subject AND s.reader_id = :me'
            .' WHERE c.author_id <> :me AND c.removed_at IS NULL AND (s.seen_at IS NULL OR c.written_at >= s.seen_at)'
            .' GROUP BY c.thread, c.subject ORDER BY MAX(c.id) DESC LIMIT 50',
            ['me' => $reader->getId()->toBinary()],
        );

        return array_map(static fn (array $row): array => [
            'thread' => ThreadKind::from($row['thread']),
            'subject' => Uuid::fromBinary($row['subject']),
            'count' => $row['count'],
        ], $rows);
    }
}
