<?php

declare(strict_types=1);

namespace ZigLane\App\Work;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use Psr\Container\ContainerInterface;
use Psr\Log\LoggerInterface;
use Symfony\Component\DependencyInjection\Attribute\AutowireLocator;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Messenger\Event\WorkerMessageFailedEvent;
use Symfony\Component\Messenger\Event\WorkerMessageReceivedEvent;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Message\OfAccount;
use ZigLane\Core\Fact\Fact;

/** Work that failed twice, took too long or lost its workers: it ends, and the page that waits for it says why. */
final readonly class GivenUp
{
    public function __construct(
        private Connection $connection,
        private ClockInterface $clock,
        private LoggerInterface $laneLogger,
        #[AutowireLocator(LongWork::class, defaultIndexMethod: 'message')] private ContainerInterface $handlers,
    ) {
    }

    /** Why the work about something was given up, as a sentence says it; null where it was not. */
    public function why(Uuid $about): ?Fact
    {
        $row = $this->connection->fetchAssociative('SELECT why, seconds FROM given_up WHERE about = ?', [$about->toBinary()]);

        return false === $row || !\is_string($row['why']) || !is_numeric($row['seconds'])
            ? null
            : self::told($row['why'], (int) $row['seconds']);
    }

    private static function told(string $why, int $seconds): Fact
    {
        return new Fact('givenUp.'.$why, ['minutes' => (int) ceil($seconds / 60)]);
    }

    #[AsEventListener]
    public function received(WorkerMessageReceivedEvent $event): void
    {
        $about = self::about($event->getEnvelope()->getMessage());
        if (null !== $about) {
            $this->connection->executeStatement('DELETE FROM given_up WHERE about = ?', [$about->toBinary()]);
        }
    }

    #[AsEventListener]
    public function failed(WorkerMessageFailedEvent $event): void
    {
        if ($event->willRetry()) {
            return;
        }
        $error = $event->getThrowable();
        while (null !== $error && !$error instanceof TookTooLong) {
            $error = $error->getPrevious();
        }
        $this->end($event->getEnvelope()->getMessage(), null === $error ? 'failed' : 'tookTooLong', $error->seconds ?? 0.0);
    }

    #[AsEventListener]
    public function lost(WorkLost $event): void
    {
        $this->end($event->message, 'lost', 0.0);
    }

    /** @param 'failed'|'tookTooLong'|'lost' $why */
    private function end(object $message, string $why, float $seconds): void
    {
        $about = self::about($message);
        if (null === $about || !$message instanceof OfAccount || !$this->handlers->has($message::class)) {
            return;
        }
        $this->laneLogger->error('Gave work up.', ['work' => $message::class, 'about' => (string) $about, 'why' => $why]);
        $this->connection->executeStatement(
            'INSERT INTO given_up (about, why, seconds, at) VALUES (?, ?, ?, ?)'
            .' ON DUPLICATE KEY UPDATE why = VALUES(why), seconds = VALUES(seconds), at = VALUES(at)',
            [$about->toBinary(), $why, (int) $seconds, $this->clock->now()->format('Y-m-d H:i:s')],
        );
        $handler = $this->handlers->get($message::class);
        \assert($handler instanceof LongWork);
        $handler->giveUp($message, self::told($why, (int) $seconds));
    }

    private static function about(object $message): ?Uuid
    {
        return $message instanceof OfAccount && Uuid::isValid($message->about()) ? Uuid::fromString($message->about()) : null;
    }
}
