<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\DriverManager;
use Symfony\Bundle\FrameworkBundle\Test\KernelTestCase;
use Symfony\Component\Clock\MockClock;
use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\Stamp\DelayStamp;
use Symfony\Component\Messenger\Transport\Serialization\PhpSerializer;
use ZigLane\App\Message\EraseSheet;
use ZigLane\App\Message\WorkOnPlan;
use ZigLane\App\Messenger\MariaDbTransport;

/** The queue of long work: no message is lost, none goes to two workers at once. */
final class TransportTest extends KernelTestCase
{
    private MockClock $clock;
    private Connection $connection;
    private MariaDbTransport $transport;

    protected function setUp(): void
    {
        $this->clock = new MockClock('2026-11-23 12:00:00');
        $this->connection = static::getContainer()->get(Connection::class);
        $this->transport = $this->transport($this->connection, 'test-'.bin2hex(random_bytes(6)));
    }

    public function testAMessageIsTakenOnceAndIsGoneWhenAcknowledged(): void
    {
        $this->transport->send(new Envelope(new EraseSheet('a')));
        self::assertSame(1, $this->transport->getMessageCount());
        $taken = $this->take();
        self::assertEquals(new EraseSheet('a'), $taken->getMessage());
        self::assertSame([], [...$this->transport->get()]);

        $this->transport->ack($taken);
        $this->clock->sleep(10000);
        self::assertSame([], [...$this->transport->get()]);
    }

    /** Somebody with three messages does not hold up somebody else with one: who has least under way comes first. */
    public function testNobodyIsHeldUpByAnothersWork(): void
    {
        foreach (['a', 'a', 'a', 'b'] as $i => $account) {
            $this->transport->send(new Envelope(new WorkOnPlan((string) $i, $account)));
        }
        $order = [];
        for ($i = 0; $i < 4; ++$i) {
            $message = $this->take()->getMessage();
            self::assertInstanceOf(WorkOnPlan::class, $message);
            $order[] = $message->accountId;
        }
        self::assertSame(['a', 'b', 'a', 'a'], $order);
    }

    public function testADelayedMessageWaits(): void
    {
        $this->transport->send(new Envelope(new EraseSheet('later'), [new DelayStamp(5000)]));
        self::assertSame([], [...$this->transport->get()]);
        $this->clock->sleep(5.01);
        self::assertEquals(new EraseSheet('later'), $this->take()->getMessage());
    }

    public function testAMessageWhoseWorkerDiedIsDueAgainUnlessKeptAlive(): void
    {
        $this->transport->send(new Envelope(new EraseSheet('x')));
        $taken = $this->take();
        $this->clock->sleep(50);
        $this->transport->keepalive($taken);
        $this->clock->sleep(50);
        self::assertSame([], [...$this->transport->get()]);
        $this->clock->sleep(11);
        self::assertEquals(new EraseSheet('x'), $this->take()->getMessage());
    }

    public function testTwoWorkersTakeDifferentMessages(): void
    {
        $queue = 'test-'.bin2hex(random_bytes(6));
        $first = $this->transport($this->connection, $queue);
        $second = $this->transport(DriverManager::getConnection($this->connection->getParams()), $queue);
        $first->send(new Envelope(new EraseSheet('1')));
        $first->send(new Envelope(new EraseSheet('2')));

        // The first worker is in the middle of taking its message: the second does not wait for it.
        $this->connection->beginTransaction();
        $this->connection->fetchOne('SELECT id FROM work_queue WHERE queue = ? ORDER BY due_at, id LIMIT 1 FOR UPDATE', [$queue]);
        $other = [...$second->get()][0] ?? null;
        $this->connection->rollBack();

        self::assertEquals(new EraseSheet('2'), $other?->getMessage());
        self::assertEquals(new EraseSheet('1'), ([...$first->get()][0] ?? null)?->getMessage());
    }

    public function testAMessageThatCannotBeReadIsTakenOutAndTold(): void
    {
        $this->transport->send(new Envelope(new EraseSheet('x')));
        $this->connection->executeStatement('UPDATE work_queue SET body = ? ORDER BY id DESC LIMIT 1', ['broken']);
        try {
            $this->take();
            self::fail('a broken message was let through');
        } catch (\Symfony\Component\Messenger\Exception\MessageDecodingFailedException) {
            self::assertSame(0, $this->transport->getMessageCount());
        }
    }

    private function transport(Connection $connection, string $queue): MariaDbTransport
    {
        return new MariaDbTransport($connection, new PhpSerializer(), $this->clock, $queue, 60);
    }

    private function take(): Envelope
    {
        $taken = [...$this->transport->get()];
        self::assertCount(1, $taken);

        return $taken[0];
    }
}
