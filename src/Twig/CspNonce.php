<?php

declare(strict_types=1);

namespace ZigLane\App\Twig;

use Symfony\Contracts\Service\ResetInterface;
use Twig\Attribute\AsTwigFunction;

/** One random word a request, which the page's own inline script carries and the content security policy names. */
final class CspNonce implements ResetInterface
{
    private ?string $nonce = null;

    #[AsTwigFunction('csp_nonce')]
    public function nonce(): string
    {
        return $this->nonce ??= bin2hex(random_bytes(12));
    }

    public function reset(): void
    {
        $this->nonce = null;
    }
}
