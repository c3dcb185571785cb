<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Camera\TableCamera;
use ZigLane\App\Drawing\PlanDrawing;
use ZigLane\App\Drawing\TableDrawing;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Log\LogEditor;
use ZigLane\App\Log\PlanAtTable;
use ZigLane\App\Log\ShotEntry;
use ZigLane\App\Log\TableView;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\App\Repository\ShotLog;
use ZigLane\App\Words\Words;
use ZigLane\Core\Camera\SeenLayout;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Log\RackResult;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Rules\BallInHand;

/** At the table: one leg at a time, what came of it in two touches, and the rest planned again from there. */
final class ShootController extends AbstractController
{
    public function __construct(
        private readonly ShotLog $log,
        private readonly LogEditor $editor,
        private readonly PlanAtTable $plans,
        private readonly Words $words,
        private readonly TableCamera $camera,
    ) {
    }

    /** Goes on with the rack that is being shot, or begins one. */
    #[Route('/sheets/{id}/shoot', name: 'sheet_shoot', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function begin(Request $request, RackSheet $sheet, PlanJobRepository $jobs, OwnTables $tables): Response
    {
        $open = $request->request->getBoolean('anew') ? null : $this->log->openRack($sheet);
        if (null === $open) {
            $job = $jobs->latestOf($sheet);
            $isOfIt = null !== $job && !$job->isOfAnother($sheet->getRack());
            $rack = $sheet->getRack();
            $rack = $rack->layout->has(Ball::Cue) ? $rack : $rack->inHand(
                BallInHand::None === $rack->ballInHand ? BallInHand::Anywhere : $rack->ballInHand,
            );
            $table = $tables->ownedBy($sheet->getOwner(), $request->request->getString('table')) ?? $sheet->getTable();
            if (null !== $table && $table !== $sheet->getTable()) {
                // Another table than it was planned for: the same diamonds, and planned anew.
                $rack = $rack->onTable($table->getEquipment());
                $isOfIt = false;
            }
            $kind = RackKind::tryFrom($request->request->getString('kind')) ?? RackKind::Practice;
            $open = $this->editor->begin($sheet->getOwner(), Uuid::v7(), $rack, $kind, $sheet, $isOfIt ? $job->getPlanFile() : null);
            $this->editor->playedAt($open->getOuting(), $request->request->getString('place'));
            $this->editor->playedOn($open->getOuting(), $table);
            $this->editor->plan($open);
        }

        return $this->redirectToRoute('shoot', ['id' => $open->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/racks/{id}/shoot', name: 'shoot', methods: ['GET'])]
    public function show(Request $request, ShotRack $rack): Response
    {
        return $this->render('shoot/page.html.twig', $this->view($request, $rack));
    }

    /** The page's changing part; nothing where the browser has the latest plan already. */
    #[Route('/racks/{id}/board', name: 'shoot_board', methods: ['GET'])]
    public function board(Request $request, ShotRack $rack): Response
    {
        $number = $this->log->shotsOf($rack);
        $job = $this->plans->job($rack, $number);
        $isKnown = $request->query->getInt('number', -1) === $number
            && $request->query->getInt('drawn', -2) === ($job?->getDrawn() ?? -1)
            && (null === $job || !$job->getState()->isOver());

        return $isKnown ? new Response(status: 204) : $this->render('shoot/board.html.twig', $this->view($request, $rack));
    }

    /** Where the balls lie now, as the room's camera sees them: for one press of "yes". */
    #[Route('/racks/{id}/seen', name: 'shoot_seen', methods: ['POST'])]
    #[IsCsrfTokenValid('rack')]
    public function seen(ShotRack $rack): JsonResponse
    {
        $now = $rack->getNow();
        $table = $rack->getOuting()->getTable();
        if (null === $table || !$this->camera->hangsOver($table)) {
            throw $this->createNotFoundException();
        }
        try {
            [$image, $corners] = $this->camera->frame($table);
            $seen = SeenLayout::in($image, $corners, $now)->since($now->layout);
        } catch (CoreError $e) {
            return new JsonResponse(['error' => $this->words->error($e)], Response::HTTP_UNPROCESSABLE_ENTITY);
        }
        $balls = [];
        foreach ($seen as $number => $spot) {
            [$long, $short] = $spot->inDiamonds($now->equipment->table);
            $balls[Ball::from($number)->label()] = [round($long, 4), round($short, 4)];
        }

        return new JsonResponse(['balls' => (object) $balls]);
    }

    /** Logs a shot; the same entry sent again is answered in the same way and counts once. */
    #[Route('/racks/{id}/shots', name: 'shoot_add', methods: ['POST'])]
    #[IsCsrfTokenValid('rack')]
    public function add(Request $request, ShotRack $rack): Response
    {
        $entry = ShotEntry::parse(
            $request->request->getString('entry'),
            $rack->getNow()->equipment->table,
            new \DateTimeImmutable('now', new \DateTimeZone('UTC')),
        );
        if ($this->editor->add($rack, $entry)) {
            $this->editor->plan($rack);
        }

        return $this->render('shoot/board.html.twig', $this->view($request, $rack));
    }

    #[Route('/racks/{id}/undo', name: 'shoot_undo', methods: ['POST'])]
    #[IsCsrfTokenValid('rack')]
    public function undo(Request $request, ShotRack $rack): Response
    {
        $this->editor->undo($rack, $request->request->getString('shot'));

        return $this->render('shoot/board.html.twig', $this->view($request, $rack));
    }

    /** Ends the rack, or with an empty end takes it up again. */
    #[Route('/racks/{id}/end', name: 'shoot_end', methods: ['POST'])]
    #[IsCsrfTokenValid('rack')]
    public function end(Request $request, ShotRack $rack): Response
    {
        $this->editor->end($rack, RackResult::tryFrom($request->request->getString('end')));
        if ($request->headers->has('HX-Request')) {
            return $this->render('shoot/board.html.twig', $this->view($request, $rack));
        }

        return $this->redirectToRoute('shoot', ['id' => $rack->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/racks/{id}/delete', name: 'rack_delete', methods: ['POST'])]
    #[IsCsrfTokenValid('rack')]
    public function delete(ShotRack $rack): Response
    {
        $this->editor->delete($rack);

        return $this->redirectToRoute('log', ['deleted' => $rack->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/racks/{id}/restore', name: 'rack_restore', methods: ['POST'])]
    #[IsCsrfTokenValid('rack')]
    public function restore(string $id, #[CurrentUser] Account $account): Response
    {
        $this->editor->restore($this->log->deletedOrNot($account, $id) ?? throw $this->createNotFoundException());

        return $this->redirectToRoute('log', [], Response::HTTP_SEE_OTHER);
    }

    /** @return array<string, mixed> */
    private function view(Request $request, ShotRack $rack): array
    {
        $view = new TableView($rack, $this->log->shots($rack), $this->plans);
        $isUpright = HeldScreen::isUpright($request);
        $drawing = null === $view->run || $view->isOld
            ? null
            : new PlanDrawing($view->run, $this->words, $isUpright, $rack->getOwner()->getHand());

        return [
            'at' => $view,
            'rack' => $rack,
            'has_camera' => $this->camera->hangsOver($rack->getOuting()->getTable()),
            'drawing' => $drawing,
            'table' => $drawing->table ?? new TableDrawing($rack->getNow(), $isUpright),
            'upright' => $isUpright,
        ];
    }
}
