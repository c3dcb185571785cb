<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use ZigLane\App\Analysis\LegPlace;
use ZigLane\App\Analysis\ShotView;
use ZigLane\App\Drawing\ShotDrawing;
use ZigLane\App\Drawing\TableDrawing;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Sheet\AnalysisInput;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\App\Sheet\ShotUnits;
use ZigLane\App\Sheet\StrokeInput;
use ZigLane\App\Words\Refused;
use ZigLane\App\Words\TipUnit;
use ZigLane\App\Words\Words;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Reading\EasiestPocket;
use ZigLane\Core\Rules\BallsOn;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;

/**
 * The shot desk: the run of a sheet leg by leg, ball, pocket and stroke of each chosen by hand, from where the leg before leaves the balls.
 */
final class ShotController extends AbstractController
{
    public function __construct(private readonly Words $words)
    {
    }

    #[Route('/sheets/{id}/plan', name: 'sheet_plan', methods: ['GET'])]
    public function show(Request $request, RackSheet $sheet): Response
    {
        $place = LegPlace::of($sheet, $request->query);

        return $this->render('shot/shot.html.twig', $this->view($request, $place, $this->input($request, $place)));
    }

    /** The parts of the page that a changed stroke redraws. */
    #[Route('/sheets/{id}/plan/draw', name: 'sheet_draw', methods: ['GET'])]
    public function draw(Request $request, RackSheet $sheet): Response
    {
        return $this->render(
            'shot/answer.html.twig',
            $this->view($request, LegPlace::of($sheet, $request->query), StrokeInput::of($request->query)),
        );
    }

    #[Route('/sheets/{id}/plan', name: 'sheet_call', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function save(Request $request, RackSheet $sheet, SheetEditor $editor): Response
    {
        $place = LegPlace::of($sheet, $request->request);
        $input = StrokeInput::of($request->request);
        try {
            $choice = $input->choice(new ShotUnits($place->rack->equipment));
            (new ShotSolver($place->rack->equipment))->solve($place->rack->layout, $choice);
        } catch (CoreError|Refused $e) {
            return $this->render(
                'shot/shot.html.twig',
                [...$this->view($request, $place, $input), 'error' => $this->words->error($e).' Nothing was saved.'],
                new Response(status: 422),
            );
        }
        $editor->call($sheet, $choice, $request->request->getInt('version'), $place->leg);
        $this->addFlash(
            'notice',
            1 === $place->leg ? 'The shot is saved with the sheet.' : $this->words->said('done.legSaved', ['leg' => $place->leg]),
        );

        return $this->redirectToRoute(
            'sheet_plan',
            ['id' => $sheet->getId(), ...(1 === $place->leg ? [] : ['leg' => $place->leg])],
            Response::HTTP_SEE_OTHER,
        );
    }

    #[Route('/sheets/{id}/plan/cut', name: 'sheet_cut', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function cutBack(Request $request, RackSheet $sheet, SheetEditor $editor): Response
    {
        $leg = max(1, $request->request->getInt('leg'));
        $editor->cutBack($sheet, $request->request->getInt('version'), $leg);
        $this->addFlash('notice', $this->words->said('done.legsOff', ['leg' => $leg]));

        return $this->redirectToRoute(
            'sheet_plan',
            ['id' => $sheet->getId(), ...($leg > 2 ? ['leg' => $leg - 1] : [])],
            Response::HTTP_SEE_OTHER,
        );
    }

    private function input(Request $request, LegPlace $place): StrokeInput
    {
        if ($request->query->has('ball')) {
            return StrokeInput::of($request->query);
        }
        if (null !== $place->kept && $place->rack->layout->has($place->kept->ball)) {
            return StrokeInput::fromChoice($place->kept, new ShotUnits($place->rack->equipment, $place->sheet->getOwner()->getTipUnit()));
        }

        return $this->opening($place->rack, $place->sheet->getOwner()->getTipUnit());
    }

    /** Before anything is chosen: the first ball that is on and the pocket with the least cut, hit in the middle at two lengths. */
    private function opening(Rack $rack, TipUnit $unit): StrokeInput
    {
        foreach ([...BallsOn::of($rack->game, $rack->layout, $rack->group), ...$rack->game->balls()] as $ball) {
            if ($rack->layout->has($ball) && $rack->layout->has(Ball::Cue)) {
                $pocket = EasiestPocket::leastCut($rack, $ball);

                return new StrokeInput($ball->label(), $pocket->value, unit: $unit);
            }
        }

        return new StrokeInput(unit: $unit);
    }

    /** @return array<string, mixed> */
    private function view(Request $request, LegPlace $place, StrokeInput $input): array
    {
        $rack = $place->rack;
        $table = new TableDrawing($rack, HeldScreen::isUpright($request));
        $units = new ShotUnits($rack->equipment, $input->unit);
        $view = [
            'place' => $place,
            'sheet' => $place->sheet,
            'look' => AnalysisInput::of($request->query, $rack, $input->ball),
            'table' => $table,
            'balls' => $rack->objectBalls(),
            'input' => $input,
            'units' => $units,
            'has_cue' => $rack->layout->has(Ball::Cue),
            'tip' => null,
            'shot' => null,
            'drawing' => null,
            'error' => null,
            'invalid' => null,
        ];
        if ([] === $view['balls'] || !$view['has_cue']) {
            return $view;
        }
        try {
            $choice = $input->choice($units);
            $view['tip'] = $choice->stroke->tip;
            $isSaved = null !== $place->kept && StrokeInput::fromChoice($place->kept, $units) == StrokeInput::fromChoice($choice, $units);
            $view['shot'] = new ShotView($place, $choice, $isSaved);
            $view['drawing'] = new ShotDrawing($table, $view['shot']->shot, $place->sheet->getOwner()->getHand());
        } catch (CoreError|Refused $e) {
            $view['error'] = $this->words->error($e);
            $view['invalid'] = $e instanceof Refused ? $e->field : null;
        }

        return $view;
    }
}
