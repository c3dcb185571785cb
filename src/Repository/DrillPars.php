<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\DrillPar;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Table\Equipment;

/**
 * Pars, and what a worker does to them: each change is a statement of its own.
 *
 * @extends ServiceEntityRepository<DrillPar>
 */
final class DrillPars extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry, private readonly ClockInterface $clock)
    {
        parent::__construct($registry, DrillPar::class);
    }

    public function of(string $hash, int $level, ExecutionErrors $player, Equipment $equipment): ?DrillPar
    {
        return $this->findOneBy(['version' => $hash, 'level' => $level, 'hand' => DrillPar::handOf($player, $equipment)]);
    }

    /** As the database has it: a worker's own statements are not in what it has loaded. */
    public function reload(DrillPar $par): void
    {
        $this->getEntityManager()->refresh($par);
    }

    /** @param array<int|string, int> $scores */
    public function stand(Uuid $id, array $scores): void
    {
        $this->getEntityManager()->getConnection()->executeStatement(
            'UPDATE drill_par SET scores = ? WHERE id = ? AND ended_at IS NULL',
            [json_encode((object) $scores, \JSON_THROW_ON_ERROR), $id->toBinary()],
        );
    }

    /**
     * @param array<int|string, int> $scores
     * @param array<mixed>|null      $stroke
     */
    public function finish(Uuid $id, array $scores, ?string $why, ?array $stroke): void
    {
        $this->getEntityManager()->getConnection()->executeStatement(
            'UPDATE drill_par SET scores = ?, why = ?, stroke = ?, ended_at = ? WHERE id = ? AND ended_at IS NULL',
            [
                json_encode((object) $scores, \JSON_THROW_ON_ERROR),
                $why,
                null === $stroke ? null : json_encode($stroke, \JSON_THROW_ON_ERROR),
                $this->clock->now()->format('Y-m-d H:i:s'),
                $id->toBinary(),
            ],
        );
    }
}
