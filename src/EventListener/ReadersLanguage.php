<?php

declare(strict_types=1);

namespace ZigLane\App\EventListener;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\KernelEvents;
use Symfony\Component\Translation\LocaleSwitcher;
use ZigLane\App\Entity\Account;
use ZigLane\App\Language\Languages;

/** A page is in the language that its reader has chosen, and where he has not in the first that his browser asks for and that there is. */
#[AsEventListener(event: KernelEvents::REQUEST, priority: 4)]
final readonly class ReadersLanguage
{
    public function __construct(private LocaleSwitcher $switcher, private Security $security, private Languages $languages)
    {
    }

    /** After the firewall, which knows whose the session is. */
    public function __invoke(RequestEvent $event): void
    {
        if (!$event->isMainRequest()) {
            return;
        }
        $request = $event->getRequest();
        // Who has no session has chosen nothing; asking for him would begin one.
        $account = $request->hasPreviousSession() ? $this->security->getUser() : null;
        $chosen = $account instanceof Account ? $account->getLanguage() : '';
        $language = $this->languages->has($chosen) ? $chosen : (string) $request->getPreferredLanguage($this->languages->codes());
        $request->setLocale($language);
        $this->switcher->setLocale($language);
    }
}
