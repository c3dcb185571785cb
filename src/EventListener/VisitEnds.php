<?php

declare(strict_types=1);

namespace ZigLane\App\EventListener;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Security\Http\Event\LogoutEvent;
use ZigLane\App\Account\DemoVisit;
use ZigLane\App\Entity\Account;

/** The demo of a visitor goes when he signs out. */
#[AsEventListener]
final readonly class VisitEnds
{
    public function __construct(private DemoVisit $visit)
    {
    }

    public function __invoke(LogoutEvent $event): void
    {
        $account = $event->getToken()?->getUser();
        if ($account instanceof Account && $account->isDemo()) {
            $this->visit->end($account);
        }
    }
}
