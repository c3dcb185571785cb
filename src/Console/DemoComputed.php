<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Uid\Uuid;

/**
 * What workers found for the demo, shipped with it (demo/computed.json): plans and options, fitted errors, a table's constants, pars, the
 * costs of a rack, the score of an answer. A fresh installation shows it at once and computes nothing. It is written from a demo whose
 * workers have done all (`lane:demo --write`), and has to be written anew when the core finds something else.
 */
final readonly class DemoComputed
{
    private const OF_DEMO = "a.email LIKE 'demo%@zig-lane.invalid'";
    /** What is kept: the question, and its key. */
    private const KEPT = [
        'jobs' => "SELECT CONCAT(a.email, '|', s.name) AS k, j.* FROM plan_job j JOIN rack_sheet s ON s.id = j.sheet_id"
            .' JOIN account a ON a.id = s.owner_id WHERE '.self::OF_DEMO." AND j.state = 'done' ORDER BY j.id",
        'fits' => 'SELECT a.email AS k, f.* FROM log_fit f JOIN account a ON a.id = f.owner_id WHERE '.self::OF_DEMO
            .' AND f.answer IS NOT NULL ORDER BY f.id',
        'pars' => 'SELECT p.version AS k, p.* FROM drill_par p WHERE p.ended_at IS NOT NULL ORDER BY p.version, p.level, p.hand',
        'tables' => "SELECT CONCAT(a.email, '|', t.name) AS k, t.fit FROM own_table t JOIN account a ON a.id = t.owner_id WHERE "
            .self::OF_DEMO.' AND t.fit IS NOT NULL',
        'costs' => 'SELECT a.email AS k, r.costs FROM shot_rack r JOIN account a ON a.id = r.owner_id WHERE '.self::OF_DEMO
            .' AND r.costs IS NOT NULL',
        'answers' => 'SELECT w.item AS k, w.score FROM answer w JOIN assignment g ON g.id = w.assignment_id'
            .' JOIN membership m ON m.id = g.membership_id JOIN account a ON a.id = m.pupil_id WHERE '.self::OF_DEMO.' AND w.score IS NOT NULL',
    ];
    /** Columns that a copy has of its own. */
    private const OWN = ['k', 'id', 'sheet_id', 'shot_rack_id', 'owner_id', 'created_at', 'started_at', 'ended_at', 'active_at'];

    public function __construct(
        private Connection $connection,
        private ClockInterface $clock,
        #[Autowire('%kernel.project_dir%/demo/computed.json')]
        private string $file,
    ) {
    }

    public function isThere(): bool
    {
        return is_file($this->file);
    }

    /** @return array<string, int> how many of each were written */
    public function write(): array
    {
        $kept = [];
        foreach (self::KEPT as $what => $sql) {
            $kept[$what] = [];
            foreach ($this->connection->fetchAllAssociative($sql) as $row) {
                $key = \is_scalar($row['k']) ? (string) $row['k'] : '';
                $kept[$what][] = ['k' => $key] + array_diff_key($row, array_flip(self::OWN));
            }
        }
        file_put_contents($this->file, json_encode($kept, \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_UNESCAPED_SLASHES)."\n");

        return array_map(\count(...), $kept);
    }

    /** Puts it into a demo that has just been loaded. */
    public function take(): void
    {
        $kept = json_decode((string) file_get_contents($this->file), true, 8, \JSON_THROW_ON_ERROR);
        foreach (array_keys(self::KEPT) as $what) {
            $rows = \is_array($kept) ? $kept[$what] ?? [] : [];
            foreach (\is_array($rows) ? $rows : [] as $row) {
                if (\is_array($row) && \is_scalar($row['k'] ?? null)) {
                    $columns = array_filter(array_diff_key($row, ['k' => true]), is_string(...), \ARRAY_FILTER_USE_KEY);
                    $this->put($what, explode('|', (string) $row['k'], 2), $columns);
                }
            }
        }
    }

    /**
     * @param list<string>         $key
     * @param array<string, mixed> $row
     */
    private function put(string $what, array $key, array $row): void
    {
        $now = $this->clock->now()->format('Y-m-d H:i:s');
        $owner = $this->connection->fetchOne('SELECT id FROM account WHERE email = ?', [$key[0]]);
        $sheet = $this->connection->fetchOne('SELECT id FROM rack_sheet WHERE owner_id = ? AND name = ?', [$owner, $key[1] ?? '']);
        $drill = $this->connection->fetchOne('SELECT hash FROM drill_version WHERE hash = ?', [$key[0]]);
        $times = ['created_at' => $now, 'ended_at' => $now];
        match ($what) {
            'jobs' => $this->insert('plan_job', 'sheet_id', $row + $times + ['started_at' => $now, 'sheet_id' => $sheet]),
            'fits' => $this->insert('log_fit', 'owner_id', $row + $times + ['owner_id' => $owner]),
            'pars' => $this->insert('drill_par', 'version', ['version' => $drill] + $row + $times),
            'tables' => $this->connection->update('own_table', $row, ['owner_id' => $owner, 'name' => $key[1] ?? '']),
            'costs' => $this->connection->executeStatement(
                "UPDATE shot_rack SET costs = ? WHERE owner_id = ? AND kind = 'practice' ORDER BY started_at DESC LIMIT 1",
                [$row['costs'] ?? null, $owner],
            ),
            default => $this->connection->update('answer', $row + ['scored_at' => $now], ['item' => (int) $key[0]]),
        };
    }

    /** @param array<string, mixed> $row passed over where what it is about is not there */
    private function insert(string $table, string $about, array $row): void
    {
        if (\is_string($row[$about])) {
            $columns = array_keys($row);
            $this->connection->executeStatement(
                \sprintf(
                    'INSERT IGNORE INTO %s (id, %s) VALUES (?%s)',
                    $table,
                    implode(', ', array_map(fn (string $name): string => $this->connection->quoteSingleIdentifier($name), $columns)),
                    str_repeat(', ?', \count($columns)),
                ),
                [Uuid::v7()->toBinary(), ...array_map(static fn (string $name): mixed => $row[$name], $columns)],
            );
        }
    }
}
