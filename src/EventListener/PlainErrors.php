<?php

declare(strict_types=1);

namespace ZigLane\App\EventListener;

use Doctrine\DBAL\Exception\ConnectionException;
use Doctrine\DBAL\Exception\RetryableException;
use Doctrine\ORM\OptimisticLockException;
use Psr\Log\LoggerInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Exception\BadRequestException;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use Symfony\Component\Security\Core\Exception\AccessDeniedException;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Core\Exception\InvalidCsrfTokenException;
use Symfony\Component\Security\Core\Exception\LogoutException;
use Twig\Environment;
use ZigLane\App\State\ChangedElsewhere;
use ZigLane\App\Words\Refused;
use ZigLane\App\Words\Words;
use ZigLane\Core\Error\CoreError;

/**
 * Every error as a sentence with what can be done and the right status; a fragment for htmx, a page otherwise. What the core
 * refuses is told in its own words; anything unforeseen is logged and told in general ones.
 */
// Before the firewall's own listener, which would send a damaged form to the sign-in page.
#[AsEventListener(priority: 2)]
final readonly class PlainErrors
{
    /** Attribute of a request that may be handled again as it is. */
    public const AGAIN = '_lane_again';

    public function __construct(private Environment $twig, private Words $words, private LoggerInterface $laneLogger)
    {
    }

    public function __invoke(ExceptionEvent $event): void
    {
        $error = $event->getThrowable();
        if (
            $error instanceof AccessDeniedException
            || ($error instanceof AuthenticationException && !$error instanceof InvalidCsrfTokenException)
        ) {
            return;
        }
        [$status, $title, $message, $headers] = $this->told($error);
        if (503 === $status) {
            // Whose session it is could not be asked: it stays as it is, or a database that is away for seconds would sign everybody out.
            $event->getRequest()->attributes->remove('_security_firewall_run');
        }
        $context = ['status' => $status, 'path' => $event->getRequest()->getPathInfo(), 'kind' => $error::class];
        if ($status >= 500) {
            $this->laneLogger->error(
                'A request failed: {kind}.',
                $context + ['where' => basename($error->getFile()).':'.$error->getLine()],
            );
        } else {
            $this->laneLogger->info('A request was refused: {kind}.', $context);
        }
        $htmx = $event->getRequest()->headers->has('HX-Request');
        if ($error instanceof ChangedElsewhere && !$htmx) {
            $event->allowCustomResponseCode();
            $event->setResponse(new Response($this->twig->render('error/changed.html.twig', [
                'differences' => $error->differences($event->getRequest()), 'sent' => $event->getRequest()->request->all(),
                'version' => $error->version, 'back' => $error->back, 'can_keep' => $error->canKeep,
            ]), $status));

            return;
        }
        $html = $this->twig->render(
            $htmx ? 'error/notice.html.twig' : 'error/page.html.twig',
            [
                'status' => $status,
                'title' => $title,
                'message' => $message,
                'hall' => 'hall' === $event->getRequest()->cookies->get('lane-theme'),
            ],
        );
        if ($htmx) {
            $headers += ['HX-Retarget' => '#notice', 'HX-Reswap' => 'innerHTML'];
        }
        if (409 === $status && $this->isRetryable($error)) {
            $event->getRequest()->attributes->set(self::AGAIN, true);
        }
        $event->allowCustomResponseCode();
        $event->setResponse(new Response($html, $status, $headers));
    }

    /** Two changes met in the database, which took one of them back whole: the same again will do. */
    private function isRetryable(\Throwable $error): bool
    {
        for ($cause = $error; null !== $cause; $cause = $cause->getPrevious()) {
            if ($cause instanceof RetryableException) {
                return true;
            }
        }

        return false;
    }

    /** @return array{int, string, string, array<mixed>} status, title, message, headers */
    private function told(\Throwable $error): array
    {
        for ($cause = $error; null !== $cause; $cause = $cause->getPrevious()) {
            if ($cause instanceof BadRequestException) {
                return [400, 'That cannot be done', 'The address of this page was not understood. Nothing was changed.', []];
            }
            // A refusal that says more about it comes first.
            if (
                !$error instanceof HttpExceptionInterface
                && ($cause instanceof OptimisticLockException || $cause instanceof RetryableException)
            ) {
                return [
                    409,
                    'Changed elsewhere',
                    'Somebody else changed this in the same moment. Reload the page and try again; nothing was saved.',
                    [],
                ];
            }
            if ($cause instanceof ConnectionException || ($cause === $error && $cause instanceof \PDOException)) {
                return [
                    503,
                    'The database does not answer',
                    'Nothing was saved. Wait a moment and try again; if it lasts, the person who runs Zig Lane has to look at it.',
                    ['Retry-After' => '10'],
                ];
            }
        }
        if ($error instanceof InvalidCsrfTokenException || $error instanceof LogoutException) {
            return [
                403,
                'Not allowed',
                'This form is too old or did not come from Zig Lane. Reload the page and try again; nothing was saved.',
                [],
            ];
        }
        if ($error instanceof CoreError || $error instanceof Refused) {
            return [422, 'That cannot be done', $this->words->error($error), []];
        }
        if ($error instanceof HttpExceptionInterface) {
            $status = $error->getStatusCode();
            $title = match ($status) {
                404 => 'Not found',
                403 => 'Not allowed',
                405 => 'Not this way',
                409 => 'Changed elsewhere',
                413 => 'Too large',
                422, 400 => 'That cannot be done',
                429 => 'Too many tries',
                default => 'Something is wrong',
            };
            $message = match ($status) {
                404 => 'There is nothing at this address, or it is not yours to see.',
                403 => 'You may not do this here. Nothing was saved.',
                405 => 'This address answers to another kind of request.',
                default => '' !== $error->getMessage() && $status < 500
                    ? $error->getMessage()
                    : 'Nothing was saved. Go back and try again.',
            };

            return [$status, $title, $message, $error->getHeaders()];
        }

        return [
            500,
            'Something went wrong',
            'It has been written down for the people who look after Zig Lane. Nothing was saved; go back and try again.',
            [],
        ];
    }
}
