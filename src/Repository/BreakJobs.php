<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\BreakJob;
use ZigLane\Core\Rules\Game;

/**
 * Searches for breaks, and what a worker does to them: each change is a statement of its own.
 *
 * @extends ServiceEntityRepository<BreakJob>
 */
final class BreakJobs extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry, private readonly ClockInterface $clock)
    {
        parent::__construct($registry, BreakJob::class);
    }

    public function latest(Account $owner, Game $game): ?BreakJob
    {
        return $this->findOneBy(['owner' => $owner, 'game' => $game], ['id' => 'DESC']);
    }

    public function progress(Uuid $id, float $share): void
    {
        $this->getEntityManager()->getConnection()->executeStatement(
            'UPDATE break_search SET progress = ? WHERE id = ? AND ended_at IS NULL',
            [round($share, 3), $id->toBinary()],
        );
    }

    /** @param list<array<mixed>>|null $answer null: nothing could be broken */
    public function finish(Uuid $id, ?array $answer): void
    {
        $this->getEntityManager()->getConnection()->executeStatement(
            'UPDATE break_search SET progress = 1, answer = ?, ended_at = ? WHERE id = ? AND ended_at IS NULL',
            [
                null === $answer ? null : json_encode($answer, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION),
                $this->clock->now()->format('Y-m-d H:i:s'), $id->toBinary(),
            ],
        );
    }

    /**
     * A player's own breaks of a game, as his log has them.
     *
     * @return array{breaks: int, made: int, shots: int, known: int, fouls: int}
     */
    public function own(Account $owner, Game $game): array
    {
        $row = $this->getEntityManager()->getConnection()->fetchAssociative(
            'SELECT COUNT(*) AS breaks, COALESCE(SUM(is_made), 0) AS made, COALESCE(SUM(has_position), 0) AS shots,'
            .' COUNT(has_position) AS known, COALESCE(SUM(is_foul), 0) AS fouls FROM shot WHERE owner_id = ? AND kind = ? AND game = ?',
            [$owner->getId()->toBinary(), 'break', $game->value],
        ) ?: [];
        $count = static fn (string $name): int => is_numeric($row[$name] ?? null) ? (int) $row[$name] : 0;

        return [
            'breaks' => $count('breaks'), 'made' => $count('made'), 'shots' => $count('shots'), 'known' => $count('known'),
            'fouls' => $count('fouls'),
        ];
    }
}
