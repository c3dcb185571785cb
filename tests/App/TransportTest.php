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
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Message\CostRack;
use ZigLane\App\Message\EraseSheet;
use ZigLane\App\Message\WorkOnPlan;
use ZigLane\App\Work\FairShare;
use ZigLane\App\Work\KeptBy;
use ZigLane\App\Work\MariaDbTransport;
use ZigLane\App\Work\WorkLost;

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
    /** The costs of one rack, asked for thirty times while they wait, are one message; asked for while they are worked on, one more. */
    public function testWorkThatWaitsIsNotAskedForAgain(): void
    {
        $about = (string) Uuid::v7();
        for ($i = 0; $i < 30; ++$i) {
            $this->transport->send(new Envelope(new CostRack($about, 'somebody')));
        }
        self::assertSame(1, $this->transport->getMessageCount());
        $this->transport->send(new Envelope(new CostRack((string) Uuid::v7(), 'somebody')));
        self::assertSame(2, $this->transport->getMessageCount());
        [...$this->transport->get()];
        for ($i = 0; $i < 3; ++$i) {
            $this->transport->send(new Envelope(new CostRack($about, 'somebody')));
        }
        self::assertSame(2, $this->transport->getMessageCount());
    }

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

    /** Two who have had much and wait with much more do not hold up a third: he comes next, whatever was sent before. */
    public function testWorkThatIsPastCounts(): void
    {
        [$a, $b, $c] = array_map(static fn (string $name): string => $name.bin2hex(random_bytes(6)), ['a', 'b', 'c']);
        $share = new FairShare($this->connection, $this->clock);
        $share->add($a, 40.0);
        $share->add($b, 30.0);
        for ($i = 0; $i < 60; ++$i) {
            $this->transport->send(new Envelope(new WorkOnPlan((string) $i, 0 === $i % 2 ? $a : $b)));
        }
        self::assertSame($b, $this->partyTaken());
        self::assertSame($a, $this->partyTaken());
        // Nobody else waits: both go on.
        self::assertFalse($share->makesWay($a));
        self::assertFalse($share->makesWay($b));
        $this->clock->sleep(1);
        $this->transport->send(new Envelope(new WorkOnPlan('c', $c)));
        // The third has had nothing: whoever has a worker makes way at his next block.
        self::assertTrue($share->makesWay($a));
        self::assertTrue($share->makesWay($b));
        self::assertSame($c, $this->partyTaken());
        self::assertFalse($share->makesWay($c));
        // What is long past does not count.
        $this->clock->sleep(1200);
        self::assertSame($a, $this->partyTaken(), 'the oldest message that waits');
        self::assertEqualsWithDelta(40.0, $share->inAnHour($a), 1e-9);
        $this->clock->sleep(3600);
        self::assertSame(0.0, $share->inAnHour($a));
    }

    private function partyTaken(): string
    {
        $message = $this->take()->getMessage();
        self::assertInstanceOf(WorkOnPlan::class, $message);

        return $message->accountId;
    }

    public function testADelayedMessageWaits(): void
    {
        $this->transport->send(new Envelope(new EraseSheet('later'), [new DelayStamp(5000)]));
        self::assertSame([], [...$this->transport->get()]);
        $this->clock->sleep(5.01);
        self::assertEquals(new EraseSheet('later'), $this->take()->getMessage());
    }

    /** Somebody sets the clock back by a minute or by a day: what waits is worked on all the same. */
    public function testWorkWaitsForNoClock(): void
    {
        foreach ([60, 86_400] as $seconds) {
            $this->transport->send(new Envelope(new EraseSheet('now')));
            $this->clock->modify("-$seconds seconds");
            $taken = $this->take();
            self::assertEquals(new EraseSheet('now'), $taken->getMessage());
            // It is this worker's, and nobody else's.
            self::assertSame([], [...$this->transport->get()]);
            $this->transport->ack($taken);
        }
        // A day later than it was, a letter that was put off is due, and what a dead worker had as well.
        $this->transport->send(new Envelope(new EraseSheet('later'), [new DelayStamp(5000)]));
        $this->clock->modify('+1 day');
        self::assertEquals(new EraseSheet('later'), $this->take()->getMessage());
        $this->clock->modify('-1 day');
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

    /** Work that a worker has put aside is his for a while: another would have to begin it anew. */
    public function testWorkThatIsPutAsideWaitsForItsWorker(): void
    {
        $queue = 'test-'.bin2hex(random_bytes(6));
        $first = $this->transport($this->connection, $queue, 'one');
        $second = $this->transport($this->connection, $queue, 'two');
        $first->send(new Envelope(new EraseSheet('kept'), [new KeptBy('one')]));
        self::assertSame([], [...$second->get()]);
        $taken = [...$first->get()];
        self::assertEquals(new EraseSheet('kept'), $taken[0]->getMessage());
        $first->ack($taken[0]);

        $first->send(new Envelope(new EraseSheet('left'), [new KeptBy('one')]));
        $this->clock->sleep(10.1);
        self::assertEquals(new EraseSheet('left'), ([...$second->get()][0] ?? null)?->getMessage());
    }

    /** A worker that was killed and is started again takes up at once what it had. */
    public function testWhatAWorkerHadWhenItWasKilledIsDueWhenItIsBack(): void
    {
        $queue = 'test-'.bin2hex(random_bytes(6));
        $this->transport($this->connection, $queue, 'one')->send(new Envelope(new EraseSheet('x')));
        $mine = $this->transport($this->connection, $queue, 'one');
        self::assertCount(1, [...$mine->get()]);
        $this->clock->sleep(1);
        $this->transport($this->connection, $queue, 'two')->release();
        self::assertSame([], [...$mine->get()]);
        $mine->release();
        self::assertCount(1, [...$mine->get()]);
    }

    /** What ends every worker that takes it is not given to a fourth. */
    public function testAMessageThatNoWorkerComesToTheEndOfIsLost(): void
    {
        $lost = [];
        $events = static::getContainer()->get('event_dispatcher');
        $events->addListener(WorkLost::class, static function (WorkLost $event) use (&$lost): void {
            $lost[] = $event->message;
        });
        $this->transport->send(new Envelope(new EraseSheet('poison')));
        for ($i = 0; $i < 3; ++$i) {
            $this->take();
            $this->clock->sleep(61);
        }
        self::assertSame([], [...$this->transport->get()]);
        self::assertEquals([new EraseSheet('poison')], $lost);
        self::assertSame(0, $this->transport->getMessageCount());
    }

    private function transport(Connection $connection, string $queue, string $worker = ''): MariaDbTransport
    {
        return new MariaDbTransport(
            $connection,
            new PhpSerializer(),
            $this->clock,
            $queue,
            60,
            new FairShare($connection, $this->clock),
            static::getContainer()->get('event_dispatcher'),
            $worker,
        );
    }

    private function take(): Envelope
    {
        $taken = [...$this->transport->get()];
        self::assertCount(1, $taken);

        return $taken[0];
    }
}
