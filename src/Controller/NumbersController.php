<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\LogFitJob;
use ZigLane\App\Log\StatedBesideReal;
use ZigLane\App\Message\FitLog;
use ZigLane\App\Repository\LogFits;
use ZigLane\App\Sheet\ErrorSource;

/** Honest numbers: the errors that the log shows, stated beside real, and what is worth practising. */
final class NumbersController extends AbstractController
{
    private const MOST_DAYS = 3650;

    public function __construct(private readonly LogFits $fits)
    {
    }

    #[Route('/numbers', name: 'numbers', methods: ['GET'])]
    public function show(#[CurrentUser] Account $account, StatedBesideReal $numbers, ErrorSource $errors): Response
    {
        return $this->render('log/numbers.html.twig', [
            'numbers' => $numbers->of($account),
            'enough' => ErrorSource::ENOUGH,
            'is_used' => null !== $errors->toPlanWith($account),
            ...$this->fit($account),
        ]);
    }

    /** How far a fit is; the page comes again when it is done. */
    #[Route('/numbers/fit', name: 'numbers_fit', methods: ['GET'])]
    public function progress(#[CurrentUser] Account $account): Response
    {
        $fit = $this->fits->latest($account);

        return $this->render('log/fit.html.twig', $this->fit($account), new Response(
            headers: null === $fit || null !== $fit->getEndedAt() ? ['HX-Refresh' => 'true'] : [],
        ));
    }

    #[Route('/numbers/fit', name: 'numbers_fit_ask', methods: ['POST'])]
    #[IsCsrfTokenValid('numbers')]
    public function ask(
        #[CurrentUser] Account $account, EntityManagerInterface $manager, MessageBusInterface $bus, ClockInterface $clock,
    ): Response {
        $last = $this->fits->latest($account);
        // One at a time.
        if (true !== $last?->isUnderWay($clock->now())) {
            $job = new LogFitJob($account, $account->getHalfLife(), $clock->now());
            $manager->wrapInTransaction(static function () use ($manager, $bus, $job, $account): void {
                $manager->persist($job);
                $manager->flush();
                $bus->dispatch(new FitLog((string) $job->getId(), $account->party()));
            });
        }

        return $this->redirectToRoute('numbers', [], Response::HTTP_SEE_OTHER);
    }

    #[Route('/numbers/use', name: 'numbers_use', methods: ['POST'])]
    #[IsCsrfTokenValid('numbers')]
    public function use(Request $request, #[CurrentUser] Account $account, EntityManagerInterface $manager): Response
    {
        $account->learnFromLog(
            $request->request->getBoolean('use'),
            max(0, min(self::MOST_DAYS, $request->request->getInt('half_life', $account->getHalfLife()))),
        );
        $manager->flush();
        $this->addFlash(
            'notice',
            $account->usesLog() ? 'Plans use the errors of your log once it says enough.' : 'Plans use the errors of each sheet.',
        );

        return $this->redirectToRoute('numbers', [], Response::HTTP_SEE_OTHER);
    }

    /** @return array{job: LogFitJob|null, fit: array<mixed>|null, account: Account} */
    private function fit(Account $account): array
    {
        return ['job' => $this->fits->latest($account), 'fit' => $this->fits->latestDone($account)?->getAnswer(), 'account' => $account];
    }
}
