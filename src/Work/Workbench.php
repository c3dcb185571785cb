<?php

declare(strict_types=1);

namespace ZigLane\App\Work;

use Doctrine\DBAL\Connection;
use Psr\Container\ContainerInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\Event\AbstractWorkerMessageEvent;
use Symfony\Component\Messenger\Event\WorkerMessageFailedEvent;
use Symfony\Component\Messenger\Event\WorkerMessageHandledEvent;
use Symfony\Component\Messenger\Event\WorkerMessageReceivedEvent;
use Symfony\Component\Messenger\Event\WorkerRunningEvent;
use Symfony\Component\Messenger\Event\WorkerStartedEvent;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Messenger\Transport\Receiver\KeepaliveReceiverInterface;
use Symfony\Component\Messenger\Worker;
use ZigLane\App\Message\OfAccount;

/**
 * Where a worker does long work, piece by piece. Between the pieces the work comes to a safe point (`beat`): there signals are noticed, the
 * lease of the message is renewed, the time of the work is bounded, its owner's share is counted, and the work makes way for others'. No
 * PHP runs on a signal anywhere else: in the middle of compiled code that changes results (docs/reliability.md).
 *
 * Work that makes way stays in the memory of its worker, as a fiber, and its message goes back to the queue, kept for that worker. In a
 * process that is no worker (a test, a command) nothing is bounded and nothing makes way.
 */
final class Workbench
{
    /** Works put aside that a worker keeps; what was put aside before them begins anew. */
    private const KEPT = 2;
    /** Seconds between renewals of a lease, and between questions about who waits. */
    private const RENEWED = 5.0;
    private const ASKED = 0.5;

    private ?Envelope $envelope = null;
    private string $receiver = '';
    private bool $isStopping = false;
    private float $counted = 0.0;
    private float $renewed = 0.0;
    private float $asked = 0.0;
    /** Of the work under way: seconds of the processor that it may take, that it had before, and the process's own when it was resumed. */
    private float $most = \INF;
    private float $had = 0.0;
    private float $since = 0.0;

    /** @var array<string, array{\Fiber<mixed, mixed, mixed, mixed>, float}> by what it is about: put aside, and seconds that it had */
    private array $kept = [];

    /** @var array<string, string> queues of this worker by their receivers, the first to be served first */
    private array $queues = [];

    /** @var resource|false|null the pipe to bin/worker; false where there is none */
    private $pipe;

    public function __construct(
        private readonly FairShare $share,
        private readonly MessageBusInterface $bus,
        private readonly Connection $connection,
        #[Autowire(service: 'messenger.receiver_locator')] private readonly ContainerInterface $receivers,
        #[Autowire('%env(LANE_WORKER)%')] private readonly string $name,
    ) {
    }

    /**
     * Does work that comes to safe points: begins it, or goes on with it where this worker has put it aside.
     *
     * @param OfAccount        $message whose handling it is
     * @param float            $most    seconds of a processor that it may take in all
     * @param \Closure(): void $work    calls `beat` between its pieces, outside transactions
     *
     * @throws TookTooLong If the work has used up its time
     */
    public function work(OfAccount $message, float $most, \Closure $work): void
    {
        $key = $message::class.$message->about();
        [$fiber, $this->had] = $this->kept[$key] ?? [new \Fiber($work), 0.0];
        unset($this->kept[$key]);
        [$this->most, $this->since] = [$most, ProcessorTime::seconds()];
        try {
            $fiber->isStarted() ? $fiber->resume() : $fiber->start();
        } finally {
            $this->most = \INF;
        }
        if ($fiber->isTerminated()) {
            return;
        }
        if ($this->isStopping) {
            $this->bus->dispatch($message);

            return;
        }
        $had = $this->had + ProcessorTime::seconds() - $this->since;
        $this->kept = [...\array_slice($this->kept, 1 - self::KEPT), $key => [$fiber, $had]];
        $this->bus->dispatch($message, [new KeptBy($this->name)]);
    }

    /** A safe point: between two pieces of work, where nothing is half done. */
    public function beat(): void
    {
        if ($this->mustPause() && null !== \Fiber::getCurrent() && !$this->connection->isTransactionActive()) {
            \Fiber::suspend();
        }
    }

    /**
     * The same for work that keeps itself in the database.
     *
     * @return bool whether it has to make way, or its worker stops
     *
     * @throws TookTooLong If the work has used up its time
     */
    public function mustPause(): bool
    {
        $envelope = $this->envelope;
        if (null === $envelope) {
            return false;
        }
        $this->live();
        if ($this->had + ProcessorTime::seconds() - $this->since > $this->most) {
            throw new TookTooLong($this->most);
        }
        $now = microtime(true);
        $message = $envelope->getMessage();
        if ($now - $this->renewed > self::RENEWED) {
            $this->renewed = $now;
            $receiver = $this->receivers->get($this->receiver);
            if ($receiver instanceof KeepaliveReceiverInterface) {
                $receiver->keepalive($envelope);
            }
        }
        if ($this->isStopping) {
            return true;
        }
        if ($now - $this->asked < self::ASKED || !$message instanceof OfAccount) {
            return false;
        }
        $this->asked = $now;
        $this->count();

        return $this->share->makesWay($message->accountId()) || $this->share->isWaitedFor($this->before($this->receiver), $this->name);
    }

    #[AsEventListener]
    public function started(WorkerStartedEvent $event): void
    {
        $worker = $event->getWorker();
        $this->queues = [];
        foreach (array_filter($worker->getMetadata()->getTransportNames(), is_string(...)) as $name) {
            $receiver = $this->receivers->get($name);
            if ($receiver instanceof MariaDbTransport) {
                $this->queues[$name] = $receiver->queue;
                $receiver->release();
            }
        }
        if (\function_exists('pcntl_signal')) {
            foreach ([\SIGTERM, \SIGINT, \SIGQUIT] as $signal) {
                pcntl_signal($signal, fn () => $this->stop($worker));
            }
        }
    }

    /** Before every message, and while there is none. */
    #[AsEventListener]
    public function running(WorkerRunningEvent $event): void
    {
        $this->live();
        if ($this->isStopping) {
            $event->getWorker()->stop();
        }
    }

    #[AsEventListener]
    public function received(WorkerMessageReceivedEvent $event): void
    {
        $this->envelope = $event->getEnvelope();
        $this->receiver = $event->getReceiverName();
        $this->counted = $this->renewed = $this->asked = microtime(true);
        $this->had = 0.0;
        $this->since = ProcessorTime::seconds();
    }

    #[AsEventListener(WorkerMessageHandledEvent::class)]
    #[AsEventListener(WorkerMessageFailedEvent::class)]
    public function ended(AbstractWorkerMessageEvent $event): void
    {
        if (null !== $this->envelope) {
            $this->count();
            $this->envelope = null;
        }
    }

    private function stop(Worker $worker): void
    {
        $this->isStopping = true;
        $worker->stop();
    }

    /** Counts what the owner of the message under way has had since it was last counted. */
    private function count(): void
    {
        $message = $this->envelope?->getMessage();
        $now = microtime(true);
        if ($message instanceof OfAccount) {
            $this->share->add($message->accountId(), $now - $this->counted);
        }
        $this->counted = $now;
    }

    /** @return list<string> queues that this worker serves before the one of a receiver */
    private function before(string $receiver): array
    {
        $place = array_search($receiver, array_keys($this->queues), true);

        return false === $place ? [] : array_values(\array_slice($this->queues, 0, $place));
    }

    /** Notices signals, and tells bin/worker that this worker lives; one whose keeper is gone stops. */
    private function live(): void
    {
        if (\function_exists('pcntl_signal_dispatch')) {
            pcntl_signal_dispatch();
        }
        if ('' === $this->name) {
            return;
        }
        $this->pipe ??= @fopen('php://fd/3', 'w');
        if (false !== $this->pipe && false === @fwrite($this->pipe, '.')) {
            $this->isStopping = true;
        }
    }
}
