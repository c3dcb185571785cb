<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\UnprocessableEntityHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use ZigLane\App\Drawing\TableDrawing;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Sheet\ErrorSource;
use ZigLane\App\Sheet\PlayerInput;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\App\Words\Words;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fit\ErrorFit;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;

/** The player whose errors the odds of a sheet come from. */
final class PlayerController extends AbstractController
{
    #[Route('/sheets/{id}/player', name: 'sheet_player', methods: ['GET'])]
    public function show(RackSheet $sheet): Response
    {
        return $this->render('player/errors.html.twig', $this->view($sheet));
    }

    #[Route('/sheets/{id}/player', name: 'sheet_player_save', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function save(
        Request $request, RackSheet $sheet, SheetEditor $editor, Words $words, ErrorSource $errors,
        EntityManagerInterface $manager,
    ): Response {
        try {
            $player = PlayerInput::errors($request->request, $sheet->getRack());
        } catch (UnprocessableEntityHttpException|CoreError $e) {
            return $this->render(
                'player/errors.html.twig',
                [...$this->view($sheet), 'error' => $words->error($e).' Nothing was saved.'],
                new Response(status: 422),
            );
        }
        $editor->playedBy($sheet, $player, $request->request->getInt('version'));
        $owner = $sheet->getOwner();
        if (null !== $errors->toPlanWith($owner)) {
            $owner->learnFromLog(false, $owner->getHalfLife());
            $manager->flush();
        }
        $this->addFlash('notice', 'The odds of this sheet are now worked out with these errors.');

        return $this->redirectToRoute('sheet_player', ['id' => $sheet->getId()], Response::HTTP_SEE_OTHER);
    }

    /** @return array<string, mixed> */
    private function view(RackSheet $sheet): array
    {
        $rack = $sheet->getRack();
        $fit = new ErrorFit(new ShotSolver($rack->equipment));
        $test = new TableDrawing(new Rack($rack->game, $fit->straightIn(), $rack->equipment));

        return [
            'sheet' => $sheet,
            'player' => $rack->player,
            'presets' => ExecutionErrors::PRESETS,
            'table' => $test,
            'results' => [
                'made' => $fit->made($rack->player),
                'lag' => 100 * $fit->lag($rack->player),
                'drift' => 100 * $fit->drift($rack->player),
            ],
            'error' => null,
        ];
    }
}
