<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\DBAL\Connection;
use Doctrine\Persistence\ManagerRegistry;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Outing;
use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\Shot;
use ZigLane\App\Entity\ShotRack;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Log\RackKind;

/**
 * Outings, their racks and shots, of one owner at a time.
 *
 * @extends ServiceEntityRepository<Outing>
 */
final class ShotLog extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Outing::class);
    }

    public function connection(): Connection
    {
        return $this->getEntityManager()->getConnection();
    }

    /** The rack only if it is this account's and not deleted: anyone else's is not found. */
    public function rackOf(Account $owner, string $id): ?ShotRack
    {
        $rack = $this->deletedOrNot($owner, $id);

        return true === $rack?->isDeleted() ? null : $rack;
    }

    public function deletedOrNot(Account $owner, string $id): ?ShotRack
    {
        return Uuid::isValid($id)
            ? $this->getEntityManager()->getRepository(ShotRack::class)->findOneBy(['id' => Uuid::fromString($id), 'owner' => $owner])
            : null;
    }

    /** The owner's outing of a day, the latest where there are several. */
    public function outingOn(Account $owner, \DateTimeImmutable $day): ?Outing
    {
        return $this->findOneBy(['owner' => $owner, 'playedOn' => $day->setTime(0, 0)], ['id' => 'DESC']);
    }

    /** The table that the owner plays on that day, where it is one of his. */
    public function tableOn(Account $owner, \DateTimeImmutable $day): ?OwnTable
    {
        return $this->outingOn($owner, $day)?->getTable();
    }

    /** Where the owner played last. */
    public function lastPlace(Account $owner): string
    {
        return $this->findOneBy(['owner' => $owner], ['playedOn' => 'DESC', 'id' => 'DESC'])?->getPlace() ?? '';
    }

    /** @return list<Shot> of a rack, in order */
    public function shots(ShotRack $rack): array
    {
        return $this->getEntityManager()->getRepository(Shot::class)->findBy(['rack' => $rack], ['number' => 'ASC']);
    }

    /** @return list<array{rack: ShotRack, shots: list<LoggedShot>}> what was shot on a day, tries left out */
    public function racksOfDay(Outing $day): array
    {
        $racks = $this->getEntityManager()->getRepository(ShotRack::class)->findBy(
            ['outing' => $day, 'deletedAt' => null, 'kind' => [RackKind::Practice, RackKind::Match]], ['startedAt' => 'ASC'], 100,
        );

        return array_map(fn (ShotRack $rack): array => [
            'rack' => $rack, 'shots' => array_map(static fn (Shot $shot): LoggedShot => $shot->logged(), $this->shots($rack)),
        ], $racks);
    }

    /** How many shots a rack has, without reading them. */
    public function shotsOf(ShotRack $rack): int
    {
        return $this->getEntityManager()->getRepository(Shot::class)->count(['rack' => $rack]);
    }

    public function shot(Uuid $id): ?Shot
    {
        return $this->getEntityManager()->find(Shot::class, $id);
    }

    /** A rack of the sheet that is still shot, the latest. */
    public function openRack(RackSheet $sheet): ?ShotRack
    {
        return $this->shotOf($sheet, 1, ['end' => null])[0] ?? null;
    }

    /** The rack that an owner is shooting, the latest; tries left out. */
    public function openOf(Account $owner): ?ShotRack
    {
        return $this->getEntityManager()->getRepository(ShotRack::class)->findOneBy(
            ['owner' => $owner, 'end' => null, 'deletedAt' => null, 'kind' => [RackKind::Practice, RackKind::Match]],
            ['startedAt' => 'DESC'],
        );
    }

    /** @return list<ShotRack> what was shot of a sheet, the latest first; tries left out */
    public function racksOf(RackSheet $sheet): array
    {
        return $this->shotOf($sheet, 50);
    }

    /**
     * @param array<string, mixed> $but
     *
     * @return list<ShotRack>
     */
    private function shotOf(RackSheet $sheet, int $most, array $but = []): array
    {
        return $this->getEntityManager()->getRepository(ShotRack::class)->findBy(
            [
                'sheet' => $sheet,
                'owner' => $sheet->getOwner(),
                'deletedAt' => null,
                'kind' => [RackKind::Practice, RackKind::Match],
                ...$but,
            ],
            ['startedAt' => 'DESC'],
            $most,
        );
    }

    /** What the shots cost is worked out anew. */
    public function forgetCosts(ShotRack $rack): void
    {
        $this->connection()->executeStatement('UPDATE shot_rack SET costs = NULL WHERE id = ?', [$rack->getId()->toBinary()]);
    }

    /** @return list<ShotRack> tries of a sheet, the first first */
    public function tries(RackSheet $sheet): array
    {
        return $this->getEntityManager()->getRepository(ShotRack::class)->findBy(
            ['sheet' => $sheet, 'owner' => $sheet->getOwner(), 'kind' => RackKind::Tries, 'deletedAt' => null],
            ['startedAt' => 'ASC'],
        );
    }
}
