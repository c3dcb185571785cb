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
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use ZigLane\App\Drawing\ReviewDrawing;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Log\ReviewView;
use ZigLane\App\Message\CostRack;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\Repository\ShotLog;

/** A rack that was shot, looked at again: planned against real, and what each shot cost. */
final class ReviewController extends AbstractController
{
    public function __construct(private readonly ShotLog $log)
    {
    }

    /** Where a sheet is taken to the table, and what was shot of it. */
    #[Route('/sheets/{id}/table', name: 'sheet_table', methods: ['GET'])]
    public function table(RackSheet $sheet, OwnTables $tables, ClockInterface $clock): Response
    {
        return $this->render('shoot/table.html.twig', [
            'tables' => $tables->all($sheet->getOwner()),
            'table' => $this->log->tableOn($sheet->getOwner(), $sheet->getOwner()->today($clock->now())) ?? $sheet->getTable(),
            'sheet' => $sheet,
            'open' => $this->log->openRack($sheet),
            'racks' => $this->log->racksOf($sheet),
            'place' => $this->log->lastPlace($sheet->getOwner()),
        ]);
    }

    /** The review of the sheet's last rack; where none is shot, the table. */
    #[Route('/sheets/{id}/review', name: 'sheet_review', methods: ['GET'])]
    public function latest(RackSheet $sheet): Response
    {
        $racks = $this->log->racksOf($sheet);

        return [] === $racks
            ? $this->redirectToRoute('sheet_table', ['id' => $sheet->getId()])
            : $this->redirectToRoute('rack_review', ['id' => $racks[0]->getId()]);
    }

    #[Route('/racks/{id}/review', name: 'rack_review', methods: ['GET'])]
    public function show(Request $request, ShotRack $rack): Response
    {
        $view = new ReviewView($rack, $this->log->shots($rack), $request->query->getInt('shot', 0));

        return $this->render($request->headers->has('HX-Request') ? 'review/board.html.twig' : 'review/page.html.twig', [
            'rack' => $rack,
            'review' => $view,
            'drawing' => new ReviewDrawing($view, HeldScreen::isUpright($request)),
        ]);
    }

    /** Where the day was played, and what the player noted of it. */
    #[Route('/racks/{id}/outing', name: 'outing_note', methods: ['POST'])]
    #[IsCsrfTokenValid('rack')]
    public function note(Request $request, ShotRack $rack, EntityManagerInterface $manager): Response
    {
        $text = static fn (string $field, int $most): string => mb_substr(trim(mb_scrub($request->request->getString($field))), 0, $most);
        $rack->getOuting()->note($text('place', 120), $text('notes', 2000));
        $manager->flush();

        return $this->redirectToRoute('rack_review', ['id' => $rack->getId()], Response::HTTP_SEE_OTHER);
    }

    /** Works out what the shots cost. */
    #[Route('/racks/{id}/costs', name: 'rack_costs', methods: ['POST'])]
    #[IsCsrfTokenValid('rack')]
    public function costs(ShotRack $rack, MessageBusInterface $bus): Response
    {
        $this->log->forgetCosts($rack);
        $bus->dispatch(new CostRack((string) $rack->getId(), $rack->getOwner()->party()));

        return $this->redirectToRoute('rack_review', ['id' => $rack->getId(), 'working' => 1], Response::HTTP_SEE_OTHER);
    }
}
