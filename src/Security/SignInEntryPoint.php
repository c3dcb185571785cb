<?php

declare(strict_types=1);

namespace ZigLane\App\Security;

use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Http\EntryPoint\AuthenticationEntryPointInterface;
use Twig\Environment;

/** Someone who is not signed in, or no longer: to the sign-in page, or for a part of a page, a message that says so. */
final readonly class SignInEntryPoint implements AuthenticationEntryPointInterface
{
    public function __construct(private UrlGeneratorInterface $urls, private Environment $twig)
    {
    }

    public function start(Request $request, ?AuthenticationException $authException = null): Response
    {
        $signIn = $this->urls->generate('sign_in', $request->hasPreviousSession() || !$request->isMethodSafe() ? ['ended' => 1] : []);
        if (!$request->headers->has('HX-Request')) {
            return new RedirectResponse($signIn);
        }

        return new Response(
            $this->twig->render('error/session.html.twig', ['sign_in' => $signIn]),
            401,
            ['HX-Retarget' => '#notice', 'HX-Reswap' => 'innerHTML'],
        );
    }
}
