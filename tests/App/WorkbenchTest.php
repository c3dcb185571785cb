<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Doctrine\DBAL\Connection;
use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\Event\WorkerMessageFailedEvent;
use Symfony\Component\Messenger\Event\WorkerMessageHandledEvent;
use Symfony\Component\Messenger\Event\WorkerMessageReceivedEvent;
use Symfony\Component\Messenger\Transport\TransportInterface;
use Symfony\Component\Process\Process;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\LogFitJob;
use ZigLane\App\Message\FitLog;
use ZigLane\App\Work\FairShare;
use ZigLane\App\Work\GivenUp;
use ZigLane\App\Work\TookTooLong;
use ZigLane\App\Work\Workbench;

/** Long work ends, makes way, and says so when it is given up. */
final class WorkbenchTest extends AppTestCase
{
    private const RECEIVER = 'work';

    /** What other tests have left in the queue is not this one's. */
    protected function setUp(): void
    {
        $this->connection()->executeStatement('DELETE FROM work_queue WHERE queue = ?', [self::RECEIVER]);
    }

    /** Work that makes way for somebody's who waits goes on where it stopped, with all that it had. */
    public function testWorkMakesWayAndGoesOnWhereItStopped(): void
    {
        $bench = static::getContainer()->get(Workbench::class);
        $share = static::getContainer()->get(FairShare::class);
        $mine = new FitLog((string) Uuid::v7(), (string) Uuid::v7());
        $other = new FitLog((string) Uuid::v7(), (string) Uuid::v7());
        $transport = $this->transport();
        /** @var \ArrayObject<int, int> $done */
        $done = new \ArrayObject();
        $work = static function () use ($bench, $done): void {
            $count = 0;
            for ($i = 0; $i < 4; ++$i) {
                $done[] = ++$count;
                // Others are asked about every half second.
                usleep(600_000);
                $bench->beat();
            }
        };
        $taken = $this->begin($mine);
        $share->add($mine->accountId, 100.0);
        $transport->send(new Envelope($other));
        $bench->work($mine, 60.0, $work);
        self::assertCount(1, $done, 'it has made way for the other, who had less');
        $this->end($taken);
        self::assertSame(1, $this->waiting($mine), 'its message is back in the queue');

        $this->connection()->executeStatement('DELETE FROM work_queue WHERE party = ?', [$other->accountId]);
        $taken = $this->begin($mine);
        $bench->work($mine, 60.0, static fn () => self::fail('it began anew'));
        self::assertEquals(new \ArrayObject([1, 2, 3, 4]), $done);
        $this->end($taken);
        self::assertSame(0, $this->waiting($mine));
    }

    /** The time of work is what it has computed, over all its pieces. */
    public function testWorkThatTakesTooLongIsStopped(): void
    {
        $bench = static::getContainer()->get(Workbench::class);
        $message = new FitLog((string) Uuid::v7(), (string) Uuid::v7());
        $taken = $this->begin($message);
        $rounds = 0;
        try {
            $bench->work($message, 0.2, static function () use ($bench, &$rounds): void {
                for (; $rounds < 10_000; ++$rounds) {
                    hash('sha256', str_repeat('x', 1_000_000));
                    $bench->beat();
                }
            });
            self::fail('It went on to its end.');
        } catch (TookTooLong $e) {
            self::assertSame(0.2, $e->seconds);
            self::assertLessThan(10_000, $rounds);
        }
        $this->end($taken);
    }

    /** What failed for good is shown as failed with a sentence, and not as waiting; asked for again it is forgotten. */
    public function testWorkThatIsGivenUpSaysSo(): void
    {
        $account = $this->signedIn();
        $manager = self::getContainer()->get('doctrine')->getManager();
        $fit = new LogFitJob($account, 90, new \DateTimeImmutable());
        $manager->persist($fit);
        $manager->flush();
        $givenUp = static::getContainer()->get(GivenUp::class);
        $envelope = new Envelope(new FitLog((string) $fit->getId(), (string) $account->getId()));
        $failed = new WorkerMessageFailedEvent($envelope, self::RECEIVER, new TookTooLong(900.0));
        $failed->setForRetry();
        $givenUp->failed($failed);
        self::assertNull($givenUp->why($fit->getId()), 'it is tried once more');

        $givenUp->failed(new WorkerMessageFailedEvent($envelope, self::RECEIVER, new \RuntimeException('x', 0, new TookTooLong(900.0))));
        $manager->clear();
        $this->client->request('GET', '/numbers');
        self::assertStringContainsString('stopped after 15 minutes of work', $this->text());
        self::assertSelectorNotExists('#fit progress');

        $givenUp->received(new WorkerMessageReceivedEvent($envelope, self::RECEIVER));
        self::assertNull($givenUp->why($fit->getId()));
    }

    /** A worker that comes to no safe point is ended from outside, by the process that keeps it. */
    public function testAWorkerInALoopWithoutEndIsEnded(): void
    {
        $root = \dirname(__DIR__, 2);
        $stuck = new Process([\PHP_BINARY, $root.'/bin/worker', 'stuck', 'list'], $root, ['LANE_SILENT' => '0.02']);
        $stuck->setTimeout(60);
        self::assertSame(70, $stuck->run(), $stuck->getErrorOutput());
        self::assertStringContainsString('no safe point', $stuck->getErrorOutput());
        // One that ends by itself ends its keeper with its own code.
        $short = new Process([\PHP_BINARY, $root.'/bin/worker', 'short', 'no:such:command'], $root);
        self::assertSame(1, $short->run());
    }

    private function begin(FitLog $message): Envelope
    {
        $transport = $this->transport();
        if (0 === $this->waiting($message)) {
            $transport->send(new Envelope($message));
        }
        foreach ($transport->get() as $envelope) {
            self::assertEquals($message, $envelope->getMessage());
            static::getContainer()->get('event_dispatcher')->dispatch(new WorkerMessageReceivedEvent($envelope, self::RECEIVER));

            return $envelope;
        }
        self::fail('It was not in the queue.');
    }

    private function end(Envelope $envelope): void
    {
        static::getContainer()->get('event_dispatcher')->dispatch(new WorkerMessageHandledEvent($envelope, self::RECEIVER));
        $this->transport()->ack($envelope);
    }

    private function waiting(FitLog $message): int
    {
        $count = $this->connection()->fetchOne(
            'SELECT COUNT(*) FROM work_queue WHERE party = ? AND due_at <= UTC_TIMESTAMP(6)',
            [$message->accountId],
        );

        return is_numeric($count) ? (int) $count : 0;
    }

    private function transport(): TransportInterface
    {
        return static::getContainer()->get('messenger.transport.'.self::RECEIVER);
    }

    private function connection(): Connection
    {
        return static::getContainer()->get(Connection::class);
    }
}
