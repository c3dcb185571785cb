<?php

declare(strict_types=1);

namespace ZigLane\App\Work;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\DBAL\ParameterType;
use Psr\Clock\ClockInterface;

/**
 * What the work of each party (an account) has taken of the workers, by the minute, so that those come first who have had least: waiting
 * and past work count, not only what is under way.
 */
final readonly class FairShare
{
    /** How many messages of the party of a message `q` workers have. Its one parameter: now. */
    public const UNDER_WAY = '(SELECT COUNT(*) FROM work_queue t'
        .' WHERE t.queue = q.queue AND t.party = q.party AND t.taken_at IS NOT NULL AND t.due_at > ?)';
    /** Seconds that the party of a message `q` had lately. Its one parameter: since when. */
    public const HAD = '(SELECT COALESCE(SUM(w.seconds), 0) FROM work_used w WHERE w.party = q.party AND w.in_minute > ?)';

    /** How far back work counts, minutes. */
    private const COUNTED = 10;
    /** Seconds that a party may have had more than another before it makes way: workers do not change at every block. */
    private const SLICE = 3.0;
    /** An idle worker takes a message within this time, milliseconds. */
    private const FREE = 300;
    /** What is kept, minutes: the hour that the accounts' budgets look at, and a little more. */
    private const KEPT = 70;

    public function __construct(private Connection $connection, private ClockInterface $clock)
    {
    }

    public function add(string $party, float $seconds): void
    {
        $this->connection->executeStatement(
            'INSERT INTO work_used (party, in_minute, seconds) VALUES (?, ?, ?)'
            .' ON DUPLICATE KEY UPDATE seconds = seconds + VALUES(seconds)',
            [$party, $this->minutesAgo(0), $seconds],
        );
    }

    /** Seconds of the workers that a party had in the last hour. */
    public function inAnHour(string $party): float
    {
        $seconds = $this->connection->fetchOne(
            'SELECT COALESCE(SUM(seconds), 0) FROM work_used WHERE party = ? AND in_minute > ?',
            [$party, $this->minutesAgo(60)],
        );

        return is_numeric($seconds) ? (float) $seconds : 0.0;
    }

    /**
     * Whether a party's work should make way: in a queue that it has workers from, another's waits that has fewer of them and had a slice
     * less lately.
     */
    public function makesWay(string $party): bool
    {
        [$now, $since] = [$this->now(), $this->since()];
        $mine = 'FROM work_queue m WHERE m.queue = q.queue AND m.party = ? AND m.taken_at IS NOT NULL AND m.due_at > ?';

        return false !== $this->connection->fetchOne(
            "SELECT 1 FROM work_queue q WHERE q.due_at <= ? AND q.party <> ? AND EXISTS (SELECT 1 $mine)"
            .' AND '.self::UNDER_WAY." < (SELECT COUNT(*) $mine)"
            .' AND '.self::HAD.' + ? < (SELECT COALESCE(SUM(o.seconds), 0) FROM work_used o WHERE o.party = ? AND o.in_minute > ?) LIMIT 1',
            [$now, $party, $party, $now, $now, $party, $now, $since, self::SLICE, $party, $since],
        );
    }

    /**
     * Whether anything waits in some queues that a worker could take.
     *
     * @param list<string> $queues
     */
    public function isWaitedFor(array $queues, string $worker): bool
    {
        return [] !== $queues && false !== $this->connection->fetchOne(
            'SELECT 1 FROM work_queue q WHERE q.queue IN (?) AND q.due_at <= ? AND (q.kept_by IS NULL OR q.kept_by = ?) LIMIT 1',
            [$queues, $this->utc()->modify(\sprintf('-%d milliseconds', self::FREE))->format('Y-m-d H:i:s.u'), $worker],
            [ArrayParameterType::STRING, ParameterType::STRING, ParameterType::STRING],
        );
    }

    /** How far back work counts, as UNDER_WAY and HAD want it. */
    public function since(): string
    {
        return $this->minutesAgo(self::COUNTED);
    }

    public function forget(): void
    {
        $this->connection->executeStatement('DELETE FROM work_used WHERE in_minute < ?', [$this->minutesAgo(self::KEPT)]);
    }

    private function minutesAgo(int $minutes): string
    {
        return $this->utc()->modify("-$minutes minutes")->format('Y-m-d H:i:00');
    }

    private function now(): string
    {
        return $this->utc()->format('Y-m-d H:i:s.u');
    }

    private function utc(): \DateTimeImmutable
    {
        return $this->clock->now()->setTimezone(new \DateTimeZone('UTC'));
    }
}
