<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;
use Psr\Clock\ClockInterface;
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
    use WorkedOn;

    private const TABLE = 'break_search';

    public function __construct(ManagerRegistry $registry, private readonly ClockInterface $clock)
    {
        parent::__construct($registry, BreakJob::class);
    }

    public function latest(Account $owner, Game $game): ?BreakJob
    {
        return $this->findOneBy(['owner' => $owner, 'game' => $game], ['id' => 'DESC']);
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
