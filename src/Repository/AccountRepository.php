<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;
use ZigLane\App\Entity\Account;

/** @extends ServiceEntityRepository<Account> */
final class AccountRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Account::class);
    }

    public function byEmail(string $email): ?Account
    {
        return $this->findOneBy(['email' => mb_strtolower($email)]);
    }
}
