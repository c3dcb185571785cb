<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Drawing\DrillDrawing;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Practice\ParDesk;
use ZigLane\App\Practice\PracticeEditor;
use ZigLane\App\Practice\PracticeView;
use ZigLane\App\Practice\Progress;
use ZigLane\App\Practice\TryEntry;
use ZigLane\App\Repository\DrillSessions;

/** A drill as it is played, one try at a time, and how scores stand over the weeks. */
final class PracticeController extends AbstractController
{
    public function __construct(
        private readonly DrillSessions $sessions,
        private readonly PracticeEditor $editor,
        private readonly ParDesk $pars,
    ) {
    }

    #[Route('/progress', name: 'progress', methods: ['GET'])]
    public function progress(Request $request, #[CurrentUser] Account $account, Progress $progress): Response
    {
        $scores = $progress->scores($account);
        $best = $progress->best($account);
        $minutes = 60 === $request->query->getInt('minutes', 30) ? 60 : 30;

        return $this->render('drills/progress.html.twig', [
            'scores' => array_reverse($scores),
            'skills' => $progress->bySkill($scores),
            'calendar' => $progress->calendar($scores),
            'best' => $best,
            'minutes' => $minutes,
            'due' => $progress->due($account, $minutes, $best, $scores),
            'submission' => (string) Uuid::v7(),
            'whose' => $this->pars->whose($account),
        ]);
    }

    #[Route('/practice/{id}', name: 'practice', methods: ['GET'])]
    public function show(Request $request, DrillSession $session): Response
    {
        return $this->render('drills/play.html.twig', $this->view($request, $session));
    }

    /** Takes a try; the same entry sent again is answered in the same way and counts once. */
    #[Route('/practice/{id}/tries', name: 'practice_add', methods: ['POST'])]
    #[IsCsrfTokenValid('drill')]
    public function add(Request $request, DrillSession $session): Response
    {
        $this->editor->add($session, TryEntry::parse($request->request->getString('entry')));

        return $this->render('drills/board.html.twig', $this->view($request, $session));
    }

    #[Route('/practice/{id}/undo', name: 'practice_undo', methods: ['POST'])]
    #[IsCsrfTokenValid('drill')]
    public function undo(Request $request, DrillSession $session): Response
    {
        $this->editor->undo($session, $request->request->getString('try'));

        return $this->render('drills/board.html.twig', $this->view($request, $session));
    }

    #[Route('/practice/{id}/end', name: 'practice_end', methods: ['POST'])]
    #[IsCsrfTokenValid('drill')]
    public function end(Request $request, DrillSession $session): Response
    {
        $this->editor->end($session);

        return $this->render('drills/board.html.twig', $this->view($request, $session));
    }

    #[Route('/practice/{id}/delete', name: 'practice_delete', methods: ['POST'])]
    #[IsCsrfTokenValid('drill')]
    public function delete(DrillSession $session): Response
    {
        $this->editor->delete($session);

        return $this->redirectToRoute('drill', ['key' => $session->getKey()], Response::HTTP_SEE_OTHER);
    }

    /** @return array<string, mixed> */
    private function view(Request $request, DrillSession $session): array
    {
        $view = new PracticeView(
            $session,
            $this->sessions->tries($session),
            $this->pars->of($session->getOwner(), $session->getVersion()->getFile(), $session->getLevel())?->getPar(),
            $this->sessions->ofDrill($session->getOwner(), $session->getKey()),
        );
        $isUpright = HeldScreen::isUpright($request);

        return [
            'at' => $view,
            'session' => $session,
            'drawing' => new DrillDrawing($view->played->drill, $view->layout, $view->played->solver->equipment, $isUpright),
            'upright' => $isUpright,
            'submission' => (string) Uuid::v7(),
            'whose' => $this->pars->whose($session->getOwner()),
        ];
    }
}
