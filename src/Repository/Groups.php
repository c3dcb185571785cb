<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Invitation;
use ZigLane\App\Entity\Membership;
use ZigLane\App\Entity\TeachingGroup;

/**
 * Groups of coaches, and who is in them.
 *
 * @extends ServiceEntityRepository<TeachingGroup>
 */
final class Groups extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, TeachingGroup::class);
    }

    public function ownedBy(Account $coach, string $id): ?TeachingGroup
    {
        $group = Uuid::isValid($id) ? $this->findOneBy(['id' => Uuid::fromString($id), 'coach' => $coach]) : null;

        return true === $group?->isClosed() ? null : $group;
    }

    /** @return list<TeachingGroup> */
    public function of(Account $coach): array
    {
        return $this->findBy(['coach' => $coach, 'closedAt' => null], ['name' => 'ASC', 'id' => 'ASC'], 200);
    }

    public function byCode(string $code): ?TeachingGroup
    {
        $group = $this->findOneBy(['code' => strtoupper(trim($code))]);

        return true === $group?->isClosed() ? null : $group;
    }

    public function invitation(string $token): ?Invitation
    {
        return 1 === preg_match('/^[0-9a-f]{32}$/D', $token)
            ? $this->getEntityManager()->getRepository(Invitation::class)->findOneBy(['token' => $token])
            : null;
    }

    /** @return list<Invitation> of a group that are still open */
    public function invitations(TeachingGroup $group, \DateTimeImmutable $now): array
    {
        return array_values(array_filter(
            $this->getEntityManager()->getRepository(Invitation::class)->findBy(
                ['group' => $group, 'usedAt' => null],
                ['id' => 'DESC'],
                200,
            ),
            static fn (Invitation $invitation): bool => $invitation->isOpen($now),
        ));
    }

    /** @return list<Membership> those who are in a group now */
    public function pupils(TeachingGroup $group): array
    {
        return array_values(array_filter(
            $this->memberships()->findBy(['group' => $group, 'leftAt' => null], ['joinedAt' => 'ASC'], 500),
            static fn (Membership $membership): bool => null === $membership->getPupil()->getDeletedAt(),
        ));
    }

    /** @return list<Membership> the groups that somebody is in now */
    public function joined(Account $pupil): array
    {
        return array_values(array_filter(
            $this->memberships()->findBy(['pupil' => $pupil, 'leftAt' => null], ['joinedAt' => 'ASC'], 200),
            static fn (Membership $membership): bool => $membership->isThere(),
        ));
    }

    public function membership(TeachingGroup $group, Account $pupil): ?Membership
    {
        return $this->memberships()->findOneBy(['group' => $group, 'pupil' => $pupil]);
    }

    /** Of a pupil who is there: for himself, or for the coach of the group. */
    public function membershipFor(Account $one, string $id): ?Membership
    {
        $membership = Uuid::isValid($id) ? $this->memberships()->find(Uuid::fromString($id)) : null;
        if (null === $membership || !$membership->isThere()) {
            return null;
        }

        return $membership->getPupil() === $one || $membership->getGroup()->getCoach() === $one ? $membership : null;
    }

    /** @return list<Membership> of somebody's pupils, each in every group of his */
    public function pupilsOf(Account $coach): array
    {
        /** @var list<Membership> $found */
        $found = $this->memberships()->createQueryBuilder('m')
            ->join('m.group', 'g')
            ->join('m.pupil', 'p')
            ->where('g.coach = :coach AND g.closedAt IS NULL AND m.leftAt IS NULL AND p.deletedAt IS NULL')
            ->setParameter('coach', $coach->getId(), 'uuid')
            ->orderBy('m.joinedAt')
            ->setMaxResults(1000)
            ->getQuery()->getResult();

        return $found;
    }

    /** Whether one is coach of the other now, either way round. */
    public function areConnected(Account $one, Account $other): bool
    {
        return [] !== $this->getEntityManager()->getConnection()->fetchFirstColumn(
            'SELECT 1 FROM membership m JOIN teaching_group g ON g.id = m.group_id'
            .' JOIN account c ON c.id = g.coach_id AND c.deleted_at IS NULL JOIN account p ON p.id = m.pupil_id AND p.deleted_at IS NULL'
            .' WHERE m.left_at IS NULL AND g.closed_at IS NULL'
            .' AND ((g.coach_id = :one AND m.pupil_id = :other) OR (g.coach_id = :other AND m.pupil_id = :one)) LIMIT 1',
            ['one' => $one->getId()->toBinary(), 'other' => $other->getId()->toBinary()],
        );
    }

    /** The coach's sight of a pupil: what he is let see in any of the groups. */
    public function sees(Account $coach, Account $pupil, string $what): bool
    {
        foreach ($this->joined($pupil) as $membership) {
            if ($membership->getGroup()->getCoach() === $coach && $membership->sees($what)) {
                return true;
            }
        }

        return false;
    }

    /** @return array<string, Account> pupils and coaches, by id, each once */
    public function connected(Account $account): array
    {
        $people = [];
        foreach ($this->pupilsOf($account) as $membership) {
            $people[(string) $membership->getPupil()->getId()] = $membership->getPupil();
        }
        foreach ($this->joined($account) as $membership) {
            $people[(string) $membership->getGroup()->getCoach()->getId()] = $membership->getGroup()->getCoach();
        }

        return $people;
    }

    /** @return \Doctrine\ORM\EntityRepository<Membership> */
    private function memberships(): \Doctrine\ORM\EntityRepository
    {
        return $this->getEntityManager()->getRepository(Membership::class);
    }
}
