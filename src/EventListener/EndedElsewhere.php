<?php

declare(strict_types=1);

namespace ZigLane\App\EventListener;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Symfony\Component\Security\Core\Authentication\Token\Storage\TokenStorageInterface;
use ZigLane\App\Account\Devices;
use ZigLane\App\Entity\Account;

/** A session that was ended from another device is over: behind the firewall, which has found out whose it is. */
#[AsEventListener(priority: 4)]
final readonly class EndedElsewhere
{
    public function __construct(
        private Security $security,
        private TokenStorageInterface $tokens,
        private Devices $devices,
        private UrlGeneratorInterface $urls,
    ) {
    }

    public function __invoke(RequestEvent $event): void
    {
        $request = $event->getRequest();
        if (!$event->isMainRequest() || !$request->hasPreviousSession()) {
            return;
        }
        $account = $this->security->getUser();
        if (!$account instanceof Account || (null === $account->getDeletedAt() && $this->devices->isKnown($request, $account))) {
            return;
        }
        $this->tokens->setToken(null);
        $request->getSession()->invalidate();
        $event->setResponse(
            $request->headers->has('HX-Request')
                ? new Response('', Response::HTTP_UNAUTHORIZED, ['HX-Redirect' => $this->urls->generate('sign_in', ['ended' => 1])])
                : new RedirectResponse($this->urls->generate('sign_in', ['ended' => 1])),
        );
    }
}
