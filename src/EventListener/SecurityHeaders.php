<?php

declare(strict_types=1);

namespace ZigLane\App\EventListener;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\ResponseEvent;
use ZigLane\App\Twig\CspNonce;

/** Headers of every answer: nothing from outside, no framing, no sniffing; players' pages are not kept by caches. */
#[AsEventListener]
final readonly class SecurityHeaders
{
    public function __construct(private CspNonce $nonce)
    {
    }

    public function __invoke(ResponseEvent $event): void
    {
        if (!$event->isMainRequest()) {
            return;
        }
        $headers = $event->getResponse()->headers;
        $headers->set('Content-Security-Policy', \sprintf(
            "default-src 'self'; script-src 'self' 'nonce-%s'; img-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
            $this->nonce->nonce(),
        ));
        $headers->set('X-Content-Type-Options', 'nosniff');
        $headers->set('X-Frame-Options', 'DENY');
        if (!$headers->has('Referrer-Policy')) {
            $headers->set('Referrer-Policy', 'same-origin');
        }
        if ($event->getRequest()->isSecure()) {
            $headers->set('Strict-Transport-Security', 'max-age=31536000');
        }
        $headers->set('Permissions-Policy', 'camera=(), microphone=(), geolocation=()');
        if (!$headers->has('Cache-Control') || 'no-cache, private' === $headers->get('Cache-Control')) {
            $headers->set('Cache-Control', 'no-store, private');
        }
    }
}
