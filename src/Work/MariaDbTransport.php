<?php

declare(strict_types=1);

namespace ZigLane\App\Work;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\Exception as DbalException;
use Doctrine\DBAL\ParameterType;
use Psr\Clock\ClockInterface;
use Psr\EventDispatcher\EventDispatcherInterface;
use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\Exception\MessageDecodingFailedException;
use Symfony\Component\Messenger\Exception\TransportException;
use Symfony\Component\Messenger\Stamp\DelayStamp;
use Symfony\Component\Messenger\Stamp\TransportMessageIdStamp;
use Symfony\Component\Messenger\Transport\Receiver\KeepaliveReceiverInterface;
use Symfony\Component\Messenger\Transport\Receiver\MessageCountAwareInterface;
use Symfony\Component\Messenger\Transport\Serialization\SerializerInterface;
use Symfony\Component\Messenger\Transport\TransportInterface;
use ZigLane\App\Message\OfAccount;
use ZigLane\App\Message\OnlyOnce;

/**
 * A queue in one table. A worker takes the oldest message that is due and locks its row while it marks it
 * (`FOR UPDATE SKIP LOCKED`, so workers never wait for each other); a message whose worker has died is due again when the worker is there
 * again, or after `redeliver` seconds unless it is kept alive, and after three such ends it is lost (WorkLost). Of messages that are
 * somebody's work those come first whose owner has least under way, and of these whose owner had least of late: one person's work cannot
 * hold up everybody's.
 */
final readonly class MariaDbTransport implements TransportInterface, KeepaliveReceiverInterface, MessageCountAwareInterface
{
    private const TABLE = 'work_queue';
    /** So often a message is given to a worker that does not come to its end. */
    private const TAKEN = 3;
    /** Work that a worker has put aside waits so long for it, seconds; then any may begin it anew. */
    private const KEPT = 10.0;
    /** What is due later than anything is put off was due before somebody set the clock back, seconds. */
    private const LATEST = 10_800.0;

    public function __construct(
        private Connection $connection,
        private SerializerInterface $serializer,
        private ClockInterface $clock,
        public string $queue,
        private int $redeliver,
        private FairShare $share,
        private EventDispatcherInterface $events,
        private string $worker,
    ) {
    }

    public function get(): iterable
    {
        $row = $this->guarded(fn (): ?array => $this->connection->transactional(function (): ?array {
            $row = $this->connection->fetchAssociative(
                'SELECT q.id, q.body, q.headers, q.taken FROM '.self::TABLE.' q WHERE q.queue = ?'
                // What was never put off is due whatever the clock says: somebody may have set it back.
                .' AND (q.due_at <= ? OR (q.put_off = 0 AND q.taken_at IS NULL) OR q.due_at > ?)'
                .' AND (q.kept_by IS NULL OR q.kept_by = ? OR q.due_at <= ?)'
                .' ORDER BY '.FairShare::UNDER_WAY.', '.FairShare::HAD.', q.due_at, q.id LIMIT 1 FOR UPDATE SKIP LOCKED',
                [
                    $this->queue, $this->time(), $this->time(self::LATEST),
                    $this->worker, $this->time(-self::KEPT), $this->time(), $this->share->since(),
                ],
            );
            if (false === $row) {
                return null;
            }
            $this->connection->executeStatement(
                'UPDATE '.self::TABLE.' SET due_at = ?, taken_at = ?, taken_by = ?, taken = taken + 1 WHERE id = ?',
                [$this->time($this->redeliver), $this->time(), $this->worker, $row['id']],
            );

            return $row;
        }));
        if (null === $row) {
            return [];
        }
        $id = $row['id'];
        $body = $row['body'];
        $headers = \is_string($row['headers']) ? json_decode($row['headers'], true) : null;
        \assert(is_numeric($id) && \is_string($body));
        $headers = array_filter(
            \is_array($headers) ? $headers : [],
            static fn (mixed $value, mixed $key): bool => \is_string($value) && \is_string($key),
            \ARRAY_FILTER_USE_BOTH,
        );
        try {
            $envelope = $this->serializer->decode(['body' => $body, 'headers' => $headers]);
        } catch (MessageDecodingFailedException $e) {
            $this->delete((string) $id);
            throw $e;
        }

        if (is_numeric($row['taken']) && (int) $row['taken'] >= self::TAKEN) {
            $this->delete((string) $id);
            $this->events->dispatch(new WorkLost($envelope->getMessage()));

            return [];
        }

        return [$envelope->with(new TransportMessageIdStamp((string) $id))];
    }

    /** What a worker of this name had when it ended is due again at once: it has just begun, so it has nothing. */
    public function release(): void
    {
        if ('' !== $this->worker) {
            $this->guarded(fn (): int|string => $this->connection->executeStatement(
                'UPDATE '.self::TABLE.' SET due_at = ? WHERE queue = ? AND taken_by = ? AND due_at > ?',
                [$this->time(), $this->queue, $this->worker, $this->time()],
            ));
        }
    }

    public function send(Envelope $envelope): Envelope
    {
        $subject = self::subject($envelope);
        $waiting = null === $subject ? false : $this->guarded(fn (): mixed => $this->connection->fetchOne(
            'SELECT id FROM '.self::TABLE.' WHERE subject = ? AND queue = ? AND taken_at IS NULL AND kept_by IS NULL LIMIT 1',
            [$subject, $this->queue],
        ));
        if (is_numeric($waiting)) {
            return $envelope->with(new TransportMessageIdStamp((string) $waiting));
        }
        $encoded = $this->serializer->encode($envelope);
        $delay = $envelope->last(DelayStamp::class)?->getDelay() ?? 0;
        $this->guarded(fn (): int|string => $this->connection->insert(self::TABLE, [
            'queue' => $this->queue,
            'body' => $encoded['body'],
            'headers' => json_encode($encoded['headers'] ?? [], \JSON_THROW_ON_ERROR),
            'due_at' => $this->time($delay / 1000),
            'put_off' => $delay > 0 ? 1 : 0,
            'kept_by' => $envelope->last(KeptBy::class)?->worker,
            'party' => $envelope->getMessage() instanceof OfAccount ? $envelope->getMessage()->accountId() : null,
            'subject' => $subject,
        ]));

        return $envelope->with(new TransportMessageIdStamp($this->connection->lastInsertId()));
    }

    /** What the work of a message is and is about, where one message of it is enough; null for others, and for work that was put aside. */
    private static function subject(Envelope $envelope): ?string
    {
        $message = $envelope->getMessage();

        return $message instanceof OnlyOnce && '' !== $message->about() && null === $envelope->last(KeptBy::class)
            ? substr((string) strrchr($message::class, '\\'), 1).' '.$message->about()
            : null;
    }

    public function ack(Envelope $envelope): void
    {
        $this->delete($this->id($envelope));
    }

    public function reject(Envelope $envelope): void
    {
        $this->delete($this->id($envelope));
    }

    public function keepalive(Envelope $envelope, ?int $seconds = null): void
    {
        $id = $this->id($envelope);
        $until = $this->time(max($this->redeliver, $seconds ?? 0));
        $this->guarded(
            fn (): int|string => $this->connection->executeStatement('UPDATE '.self::TABLE.' SET due_at = ? WHERE id = ?', [$until, $id]),
        );
    }

    public function getMessageCount(): int
    {
        $count = $this->guarded(fn (): mixed => $this->connection->fetchOne(
            'SELECT COUNT(*) FROM '.self::TABLE.' WHERE queue = ? AND due_at <= ?',
            [$this->queue, $this->time()],
        ));

        return is_numeric($count) ? (int) $count : 0;
    }

    private function delete(string $id): void
    {
        $this->guarded(fn (): int|string => $this->connection->delete(self::TABLE, ['id' => $id], ['id' => ParameterType::INTEGER]));
    }

    private function id(Envelope $envelope): string
    {
        $id = $envelope->last(TransportMessageIdStamp::class)?->getId();

        return \is_scalar($id) ? (string) $id : throw new TransportException('The message did not come from this transport.');
    }

    /** Now or some seconds later, as the table keeps it (UTC, microseconds). */
    private function time(float $later = 0.0): string
    {
        return $this->clock->now()
            ->setTimezone(new \DateTimeZone('UTC'))
            ->modify(\sprintf('%+d microseconds', (int) round(1e6 * $later)))
            ->format('Y-m-d H:i:s.u');
    }

    /**
     * @template T
     *
     * @param \Closure(): T $query
     *
     * @return T
     */
    private function guarded(\Closure $query): mixed
    {
        try {
            return $query();
        } catch (DbalException $e) {
            throw new TransportException('The queue could not be reached: '.$e::class, 0, $e);
        }
    }
}
