<?php

declare(strict_types=1);

namespace ZigLane\App\State;

use Psr\Clock\ClockInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\RequestEvent;

/** A session that was not used for long is over: before the firewall looks at it, whether or not its row is still there. */
#[AsEventListener(priority: 64)]
final readonly class OldSessions
{
    /** Seconds without a request. */
    public const IDLE = 14 * 86400;

    public function __construct(private ClockInterface $clock)
    {
    }

    public function __invoke(RequestEvent $event): void
    {
        $request = $event->getRequest();
        if (!$event->isMainRequest() || !$request->hasPreviousSession()) {
            return;
        }
        $session = $request->getSession();
        $session->start();
        $used = $session->getMetadataBag()->getLastUsed();
        if ($used > 0 && $this->clock->now()->getTimestamp() - $used > self::IDLE) {
            $session->invalidate();
        }
    }
}
