<?php

declare(strict_types=1);

namespace ZigLane\App\Account;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Letter;

/** Closes an account at once, and deletes it with everything a week later, unless that is taken back. */
final readonly class AccountCloser
{
    private const DAYS = 7;

    public function __construct(
        private EntityManagerInterface $manager,
        private ClockInterface $clock,
        private Letters $letters,
        private Devices $devices,
    ) {
    }

    public function close(Account $account): void
    {
        $account->delete($this->clock->now());
        $this->manager->flush();
        $this->devices->endAll($account);
        $this->letters->send($account, Letter::UNDELETE);
    }

    public function open(Account $account): void
    {
        $account->delete(null);
        $this->manager->flush();
    }

    /** Deletes those whose week is over: what is theirs goes with them, also what they wrote elsewhere. */
    public function purge(): int
    {
        return $this->erase($this->manager->getConnection()->fetchFirstColumn(
            'SELECT id FROM account WHERE deleted_at < ?',
            [$this->clock->now()->modify('-'.self::DAYS.' days')->format('Y-m-d H:i:s')],
        ));
    }

    /**
     * @param list<mixed> $ids of accounts, as the database has them
     *
     * @return int accounts that were there
     */
    public function erase(array $ids): int
    {
        if ([] === $ids) {
            return 0;
        }
        $connection = $this->manager->getConnection();
        // Comments on their things, which no key ties to these.
        foreach (['rack_sheet', 'shot_rack', 'drill_session'] as $table) {
            $connection->executeStatement(
                "DELETE c FROM comment c JOIN $table t ON t.id = c.subject WHERE t.owner_id IN (?)",
                [$ids],
                [ArrayParameterType::BINARY],
            );
        }

        return (int) $connection->executeStatement('DELETE FROM account WHERE id IN (?)', [$ids], [ArrayParameterType::BINARY]);
    }
}
