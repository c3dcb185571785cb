<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Messenger\Event\AbstractWorkerMessageEvent;
use Symfony\Component\Messenger\Event\WorkerMessageFailedEvent;
use Symfony\Component\Messenger\Event\WorkerMessageHandledEvent;
use Symfony\Component\Messenger\Event\WorkerMessageReceivedEvent;
use ZigLane\App\Message\OfAccount;
use ZigLane\App\Message\WorkOnPlan;

/** Counts what the work of an account takes of a worker. Plans count themselves, block by block. */
final class CountWork
{
    private float $since = 0.0;

    public function __construct(private readonly FairShare $share)
    {
    }

    #[AsEventListener]
    public function received(WorkerMessageReceivedEvent $event): void
    {
        $this->since = microtime(true);
    }

    #[AsEventListener(WorkerMessageHandledEvent::class)]
    #[AsEventListener(WorkerMessageFailedEvent::class)]
    public function ended(AbstractWorkerMessageEvent $event): void
    {
        $message = $event->getEnvelope()->getMessage();
        if ($message instanceof OfAccount && !$message instanceof WorkOnPlan) {
            $this->share->add($message->accountId(), microtime(true) - $this->since);
        }
    }
}
