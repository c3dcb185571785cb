<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Answer;
use ZigLane\App\Entity\Assignment;
use ZigLane\App\Entity\Membership;

/**
 * What pupils were given to do.
 *
 * @extends ServiceEntityRepository<Assignment>
 */
final class Assignments extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Assignment::class);
    }

    /** For the pupil, or the coach whose group he is in now. */
    public function for(Account $one, string $id): ?Assignment
    {
        $assignment = Uuid::isValid($id) ? $this->find(Uuid::fromString($id)) : null;
        if (null === $assignment || $assignment->isWithdrawn() || !$assignment->getMembership()->isThere()) {
            return null;
        }

        return $assignment->getPupil() === $one || $assignment->getCoach() === $one ? $assignment : null;
    }

    /** @return list<Assignment> of a pupil in a group, the next due first */
    public function of(Membership $membership): array
    {
        return $this->findBy(['membership' => $membership, 'withdrawnAt' => null], ['doneAt' => 'ASC', 'dueOn' => 'ASC', 'id' => 'DESC'], 200);
    }

    /** @return list<Assignment> what a pupil has not done yet, the next due first */
    public function dueBy(Account $pupil): array
    {
        /** @var list<Assignment> $found */
        $found = $this->createQueryBuilder('a')
            ->join('a.membership', 'm')->join('m.group', 'g')
            ->where('m.pupil = :pupil AND m.leftAt IS NULL AND g.closedAt IS NULL AND a.doneAt IS NULL AND a.withdrawnAt IS NULL')
            ->setParameter('pupil', $pupil->getId(), 'uuid')
            ->addOrderBy('a.dueOn')->addOrderBy('a.id')
            ->setMaxResults(100)
            ->getQuery()->getResult();

        return $found;
    }

    /** @return array<int, Answer> by item */
    public function answers(Assignment $assignment): array
    {
        $answers = [];
        foreach ($this->getEntityManager()->getRepository(Answer::class)->findBy(['assignment' => $assignment]) as $answer) {
            $answers[$answer->getItem()] = $answer;
        }

        return $answers;
    }
}
