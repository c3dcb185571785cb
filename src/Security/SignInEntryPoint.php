<?php

declare(strict_types=1);

namespace ZigLane\App\Security;

use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Http\EntryPoint\AuthenticationEntryPointInterface;
use Symfony\Component\Security\Http\Util\TargetPathTrait;
use Twig\Environment;

/** Someone who is not signed in, or no longer: to the sign-in page, or for a part of a page, a message that says so. */
final readonly class SignInEntryPoint implements AuthenticationEntryPointInterface
{
    use TargetPathTrait;

    public function __construct(private UrlGeneratorInterface $urls, private Environment $twig)
    {
    }

    public function start(Request $request, ?AuthenticationException $authException = null): Response
    {
        $signIn = $this->urls->generate('sign_in', $request->hasPreviousSession() || !$request->isMethodSafe() ? ['ended' => 1] : []);
        if (!$request->headers->has('HX-Request')) {
            return new RedirectResponse($signIn);
        }

        // Signed in again he goes on with the page, not with the part of it that was asked for.
        if ($request->hasSession()) {
            $page = parse_url((string) $request->headers->get('HX-Current-URL'));
            $isOurs = \is_array($page) && ($page['host'] ?? '') === $request->getHost() && str_starts_with($page['path'] ?? '', '/');
            $target = $isOurs ? $page['path'].(isset($page['query']) ? '?'.$page['query'] : '') : $this->urls->generate('sheets');
            $this->saveTargetPath($request->getSession(), 'main', $target);
        }

        return new Response(
            $this->twig->render('error/session.html.twig', ['sign_in' => $signIn]),
            401,
            ['HX-Retarget' => '#notice', 'HX-Reswap' => 'innerHTML'],
        );
    }
}
