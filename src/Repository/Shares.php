<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Share;
use ZigLane\App\Entity\ShareKind;

/**
 * What is shown to whom.
 *
 * @extends ServiceEntityRepository<Share>
 */
final class Shares extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Share::class);
    }

    public function ownedBy(Account $owner, string $id): ?Share
    {
        return Uuid::isValid($id) ? $this->findOneBy(['id' => Uuid::fromString($id), 'owner' => $owner]) : null;
    }

    public function grantedTo(Account $grantee, string $id): ?Share
    {
        return Uuid::isValid($id) ? $this->findOneBy(['id' => Uuid::fromString($id), 'grantee' => $grantee]) : null;
    }

    public function byToken(string $token): ?Share
    {
        return 1 === preg_match('/^[0-9a-f]{32}$/D', $token) ? $this->findOneBy(['token' => $token]) : null;
    }

    /** @return list<Share> of one thing, those in force first */
    public function of(Account $owner, ShareKind $kind, string $subject): array
    {
        return $this->findBy(['owner' => $owner, 'kind' => $kind, 'subject' => $subject], ['withdrawnAt' => 'ASC', 'id' => 'DESC'], 200);
    }

    /** @return list<Share> the latest first */
    public function all(Account $owner): array
    {
        return $this->findBy(['owner' => $owner, 'withdrawnAt' => null], ['id' => 'DESC'], 500);
    }

    /** @return list<Share> what others show to somebody, the latest first */
    public function to(Account $grantee): array
    {
        return $this->findBy(['grantee' => $grantee, 'withdrawnAt' => null], ['id' => 'DESC'], 500);
    }

    public function between(Account $owner, Account $grantee, ShareKind $kind, string $subject): ?Share
    {
        return $this->findOneBy(['owner' => $owner, 'grantee' => $grantee, 'kind' => $kind, 'subject' => $subject, 'withdrawnAt' => null]);
    }
}
