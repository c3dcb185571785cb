<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\InputBag;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Breaking\BreakOffRequest;
use ZigLane\App\Drawing\BreakOffDrawing;
use ZigLane\App\Entity\Account;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\Sheet\ErrorSource;
use ZigLane\App\Sheet\OneLook;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\App\Words\Words;
use ZigLane\Core\Breaking\BreakOffShot;
use ZigLane\Core\Breaking\BreakOffTrials;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;

/** The break shot of straight pool: what opens, what sticks, and what is left. */
#[Route('/break/shot')]
final class BreakOffController extends AbstractController
{
    private const SHOTS = 200;
    /** Seconds that a look may take. */
    private const MOST = 6.0;

    public function __construct(
        private readonly OwnTables $tables,
        private readonly ErrorSource $errors,
        private readonly Words $words,
    ) {
    }

    #[Route('', name: 'break_off', methods: ['GET'])]
    public function show(Request $request, #[CurrentUser] Account $account): Response
    {
        return $this->render('break/shot.html.twig', [
            'asked' => $this->asked($request->query, $account),
            'usual' => BreakOffShot::USUAL,
            'limits' => BreakOffShot::LIMITS,
            'pockets' => Pocket::cases(),
            'games' => Game::cases(),
            'players' => [...(null === $this->errors->ofLog($account) ? [] : ['you']), ...array_keys(ExecutionErrors::presets())],
            'tables' => $this->tables->all($account),
        ]);
    }

    /** What two hundred of it come to. */
    #[Route('/look', name: 'break_off_look', methods: ['GET'])]
    public function look(Request $request, #[CurrentUser] Account $account, OneLook $one): Response
    {
        $asked = $this->asked($request->query, $account);
        $found = $error = null;
        try {
            $play = static function (ShotSolver $solver) use ($asked): array {
                $trials = new BreakOffTrials($asked->shot, $asked->player, $solver);

                return [$trials, $trials->play(self::SHOTS)];
            };
            $found = $one->of($request, $account, new ShotSolver($asked->equipment), $play, self::MOST);
        } catch (CoreError $e) {
            $error = $this->words->error($e);
        }

        return $this->render('break/shot_look.html.twig', [
            'asked' => $asked,
            'trials' => $found[0] ?? null,
            'tally' => $found[1] ?? null,
            'drawing' => null === $found ? null : new BreakOffDrawing(
                $found[0], $found[1], $asked->equipment, HeldScreen::isUpright($request),
            ),
            'error' => $error,
        ]);
    }

    /** It becomes a sheet, with the fourteen racked. */
    #[Route('/sheet', name: 'break_off_sheet', methods: ['POST'])]
    #[IsCsrfTokenValid('break')]
    public function sheet(Request $request, #[CurrentUser] Account $account, SheetEditor $editor): Response
    {
        $asked = $this->asked($request->request, $account);
        $trials = new BreakOffTrials($asked->shot, $asked->player, new ShotSolver($asked->equipment));
        $submission = $request->request->getString('submission');
        $sheet = $editor->create(
            $account,
            $this->words->said('break.offSheet'),
            new Rack(Game::StraightPool, $trials->racked, $asked->equipment, $asked->player),
            Uuid::isValid($submission) ? Uuid::fromString($submission) : Uuid::v4(),
        );

        return $this->redirectToRoute('sheet_layout', ['id' => $sheet->getId()], Response::HTTP_SEE_OTHER);
    }

    /** @param InputBag<string> $input */
    private function asked(InputBag $input, Account $account): BreakOffRequest
    {
        return BreakOffRequest::of($input, $account, $this->tables, $this->errors);
    }
}
