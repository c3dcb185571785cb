<?php

declare(strict_types=1);

namespace ZigLane\App\Account;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use ZigLane\App\Entity\Account;

/**
 * The demo of one visitor: a copy of the demo player with his pupils, their sheets, logs, drills and lessons. Nobody else sees it. It is
 * deleted when he signs out, or after half a day. The database alone makes it, table by table. The ids of the copy keep the time that is in
 * the ids of the demo, so what came last there comes last here.
 */
final readonly class DemoVisit
{
    /** Copies at a time; a copy takes about two megabytes. */
    private const MOST = 300;
    private const HOURS = 12;
    private const ACCOUNTS = "SELECT id FROM account WHERE email LIKE 'demo%@zig-lane.invalid'";
    private const SHEETS = 'SELECT id FROM rack_sheet WHERE owner_id IN ('.self::ACCOUNTS.')';
    private const MEMBERS = 'SELECT id FROM membership WHERE pupil_id IN ('.self::ACCOUNTS.')';
    /** What is copied: tables, and the column that says which rows are the demo's. */
    private const TABLES = [
        'account' => 'id IN ('.self::ACCOUNTS.')',
        'own_table' => 'owner_id IN ('.self::ACCOUNTS.')',
        'outing' => 'owner_id IN ('.self::ACCOUNTS.')',
        'rack_sheet' => 'owner_id IN ('.self::ACCOUNTS.')',
        'layout_step' => 'sheet_id IN ('.self::SHEETS.')',
        'shot_rack' => 'owner_id IN ('.self::ACCOUNTS.')',
        'shot' => 'owner_id IN ('.self::ACCOUNTS.')',
        'plan_job' => "state IN ('done', 'nothing') AND sheet_id IN (".self::SHEETS.')',
        'log_fit' => 'owner_id IN ('.self::ACCOUNTS.')',
        'drill' => 'owner_id IN ('.self::ACCOUNTS.')',
        'drill_session' => 'owner_id IN ('.self::ACCOUNTS.')',
        'drill_try' => 'session_id IN (SELECT id FROM drill_session WHERE owner_id IN ('.self::ACCOUNTS.'))',
        'lesson' => 'owner_id IN ('.self::ACCOUNTS.')',
        'teaching_group' => 'coach_id IN ('.self::ACCOUNTS.')',
        'membership' => 'pupil_id IN ('.self::ACCOUNTS.')',
        'assignment' => 'membership_id IN ('.self::MEMBERS.')',
        'answer' => 'assignment_id IN (SELECT id FROM assignment WHERE membership_id IN ('.self::MEMBERS.'))',
        'share' => 'owner_id IN ('.self::ACCOUNTS.')',
        'comment' => 'author_id IN ('.self::ACCOUNTS.')',
        'thread_seen' => 'reader_id IN ('.self::ACCOUNTS.')',
    ];

    public function __construct(private Connection $connection, private ClockInterface $clock, private AccountCloser $closer)
    {
    }

    /**
     * A demo of one's own.
     *
     * @return string the address of its player, who has no password
     *
     * @throws TooManyRequestsHttpException If as many look round as may
     */
    public function begin(): string
    {
        $this->forgetOld();
        $count = $this->connection->fetchOne('SELECT COUNT(*) FROM account WHERE email LIKE ?', [Account::visitor(str_repeat('_', 16))]);
        if (is_numeric($count) && (int) $count >= self::MOST) {
            throw new TooManyRequestsHttpException(
                600,
                'As many look round as the demo has room for. Come back in a little while, or make an account.',
            );
        }
        $visit = bin2hex(random_bytes(8));
        $this->connection->transactional(function () use ($visit): void {
            // Tables refer to each other in a ring.
            $this->connection->executeStatement('SET FOREIGN_KEY_CHECKS = 0');
            try {
                $columns = $this->columns();
                foreach (self::TABLES as $table => $where) {
                    $this->copy($table, $columns[$table], $where, $visit);
                }
            } finally {
                $this->connection->executeStatement('SET FOREIGN_KEY_CHECKS = 1');
            }
        });

        return Account::visitor($visit);
    }

    /** All of a visitor's, once he has gone. */
    public function end(Account $visitor): void
    {
        if (1 === preg_match('/^visitor-([0-9a-f]{16})@/', $visitor->getEmail(), $found)) {
            $this->delete('email LIKE ?', Account::visitor($found[1], '%'));
        }
    }

    /** Of visitors who did not sign out. */
    public function forgetOld(): void
    {
        $before = $this->clock->now()->modify('-'.self::HOURS.' hours')->format('Y-m-d H:i:s');
        $this->delete('email LIKE ? AND created_at < ?', Account::visitor('%', '%'), $before);
    }

    private function delete(string $where, string ...$values): void
    {
        $this->closer->erase($this->connection->fetchFirstColumn("SELECT id FROM account WHERE $where", $values));
    }

    /** @return array<string, array<string, string>> by table, the type of each column */
    private function columns(): array
    {
        $columns = array_map(static fn (): array => [], self::TABLES);
        foreach ($this->connection->fetchAllAssociative(
            'SELECT table_name AS place, column_name AS name, column_type AS type FROM information_schema.columns'
            .' WHERE table_schema = DATABASE() AND table_name IN (?) AND extra NOT LIKE \'%auto_increment%\' ORDER BY ordinal_position',
            [array_keys(self::TABLES)],
            [ArrayParameterType::STRING],
        ) as $column) {
            \assert(\is_string($column['place']) && \is_string($column['name']) && \is_string($column['type']));
            $columns[$column['place']][$column['name']] = $column['type'];
        }

        return $columns;
    }

    /** @param array<string, string> $types of its columns */
    private function copy(string $table, array $types, string $where, string $visit): void
    {
        $columns = $values = [];
        foreach ($types as $column => $type) {
            $name = '`'.$column.'`';
            $columns[] = $name;
            $values[] = match ($table.'.'.$column) {
                'account.email' => "CONCAT('visitor-$visit', SUBSTRING($name, 5))",
                'account.created_at' => $this->connection->quote($this->clock->now()->format('Y-m-d H:i:s')),
                // Words that open something are new; what is shown by a link is not shown of the copy.
                'teaching_group.code' => "SUBSTRING(SHA2(CONCAT($name, '$visit'), 256), 1, CHAR_LENGTH($name))",
                'share.token' => "IF($name IS NULL, NULL, SUBSTRING(SHA2(CONCAT($name, '$visit'), 256), 1, 32))",
                'share.subject' => "IF($name REGEXP '^[0-9a-f-]{36}$', "
                    .self::asText("UNHEX(REPLACE($name, '-', ''))", $visit).", $name)",
                default => 'binary(16)' === $type ? 'UNHEX('.self::other($name, $visit).')' : $name,
            };
        }
        $this->connection->executeStatement(
            \sprintf('INSERT INTO %s (%s) SELECT %s FROM %1$s WHERE %s', $table, implode(', ', $columns), implode(', ', $values), $where),
        );
    }

    /** The id of the copy of what has an id, as 32 digits: its time, and other bits behind. */
    private static function other(string $id, string $visit): string
    {
        return "CONCAT(HEX(LEFT($id, 8)), '8', LEFT(MD5(CONCAT($id, '$visit')), 15))";
    }

    private static function asText(string $id, string $visit): string
    {
        $digits = 'LOWER('.self::other($id, $visit).')';

        return "CONCAT_WS('-', SUBSTRING($digits, 1, 8), SUBSTRING($digits, 9, 4), SUBSTRING($digits, 13, 4), "
            ."SUBSTRING($digits, 17, 4), SUBSTRING($digits, 21))";
    }
}
