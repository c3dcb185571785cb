<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\OwnDrill;

/** @extends ServiceEntityRepository<OwnDrill> */
final class OwnDrills extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, OwnDrill::class);
    }

    public function ownedBy(Account $owner, string $id): ?OwnDrill
    {
        return Uuid::isValid($id) ? $this->findOneBy(['id' => Uuid::fromString($id), 'owner' => $owner]) : null;
    }

    /** @return list<OwnDrill> */
    public function all(Account $owner): array
    {
        return $this->findBy(['owner' => $owner], ['name' => 'ASC'], 500);
    }
}
