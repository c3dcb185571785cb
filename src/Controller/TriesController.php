<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Drawing\ShotDrawing;
use ZigLane\App\Drawing\TableDrawing;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Log\TriesEditor;
use ZigLane\App\Log\TryResult;
use ZigLane\App\Sheet\NumberText;
use ZigLane\App\Sheet\ShotUnits;
use ZigLane\App\Words\Refused;

/** Ten tries of one shot: the player's own guess beforehand, large buttons, and the options of one position side by side. */
final class TriesController extends AbstractController
{
    public function __construct(private readonly TriesEditor $editor)
    {
    }

    #[Route('/sheets/{id}/tries', name: 'tries', methods: ['GET'])]
    public function show(Request $request, RackSheet $sheet): Response
    {
        $tries = $this->editor->all($sheet);
        $chosen = $request->query->getString('of');
        $set = array_values(array_filter($tries, static fn (array $one): bool => (string) $one['rack']->getId() === $chosen))[0]
            ?? $tries[\count($tries) - 1] ?? null;
        $rack = null === $set ? $sheet->getRack() : $set['rack']->getStart();
        $table = new TableDrawing($rack, HeldScreen::isUpright($request));

        return $this->render('tries/page.html.twig', [
            'sheet' => $sheet,
            'tries' => $tries,
            'set' => $set,
            'table' => $table,
            'drawing' => null === $set || null === $set['shot']
                ? null
                : new ShotDrawing($table, $set['shot'], $sheet->getOwner()->getHand()),
            'units' => new ShotUnits($rack->equipment, $sheet->getOwner()->getTipUnit()),
            'submission' => (string) Uuid::v7(),
        ]);
    }

    /** Begins tries of the shot that the sheet keeps, with the player's guess. */
    #[Route('/sheets/{id}/tries', name: 'tries_begin', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function begin(Request $request, RackSheet $sheet): Response
    {
        $guess = trim($request->request->getString('guess'));
        $id = $request->request->getString('submission');
        $rack = $this->editor->begin(
            $sheet,
            Uuid::isValid($id) ? Uuid::fromString($id) : throw Refused::because('entry'),
            '' === $guess ? null : 0.01 * NumberText::between($guess, 'Your guess', 0, 100, ' %'),
        );

        return $this->redirectToRoute('tries', ['id' => $sheet->getId(), 'of' => $rack->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/racks/{id}/tries', name: 'tries_add', methods: ['POST'])]
    #[IsCsrfTokenValid('rack')]
    public function add(Request $request, ShotRack $rack): Response
    {
        $id = $request->request->getString('entry');
        $result = TryResult::tryFrom($request->request->getString('result'));
        if (null === $result || !Uuid::isValid($id)) {
            throw Refused::because('entry');
        }
        $this->editor->add($rack, Uuid::fromString($id), $result);

        return $this->back($rack);
    }

    #[Route('/racks/{id}/tries/undo', name: 'tries_undo', methods: ['POST'])]
    #[IsCsrfTokenValid('rack')]
    public function undo(ShotRack $rack): Response
    {
        $this->editor->undo($rack);

        return $this->back($rack);
    }

    private function back(ShotRack $rack): Response
    {
        $sheet = $rack->getSheet() ?? throw $this->createNotFoundException();

        return $this->redirectToRoute('tries', ['id' => $sheet->getId(), 'of' => $rack->getId()], Response::HTTP_SEE_OTHER);
    }
}
