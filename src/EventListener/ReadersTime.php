<?php

declare(strict_types=1);

namespace ZigLane\App\EventListener;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\ControllerEvent;
use Twig\Environment;
use Twig\Extension\CoreExtension;
use ZigLane\App\Entity\Account;

/** Times on a page are those of where its reader is; days that were chosen stay as they are (date with false). */
#[AsEventListener]
final readonly class ReadersTime
{
    public function __construct(private Environment $twig, private Security $security)
    {
    }

    public function __invoke(ControllerEvent $event): void
    {
        // Who has no session has no zone; asking for him would begin one.
        $account = $event->getRequest()->hasPreviousSession() ? $this->security->getUser() : null;
        $this->twig->getExtension(CoreExtension::class)->setTimezone($account instanceof Account ? $account->getTimeZone() : 'UTC');
    }
}
