<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\UnprocessableEntityHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use ZigLane\App\Drawing\ShotPlot;
use ZigLane\App\Drawing\ShotReport;
use ZigLane\App\Drawing\TablePlan;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Sheet\LookInput;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\App\Sheet\ShotAnswer;
use ZigLane\App\Sheet\StrokeInput;
use ZigLane\Core\Error\LaneError;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\EasiestPocket;
use ZigLane\Core\Shot\StrokeName;

/** The plan of a sheet: so far one leg, with ball, pocket and stroke chosen by hand. */
final class PlanController extends AbstractController
{
    #[Route('/sheets/{id}/plan', name: 'sheet_plan', methods: ['GET'])]
    public function show(Request $request, RackSheet $sheet): Response
    {
        return $this->render('plan/shot.html.twig', $this->view($request, $sheet, $this->input($request, $sheet)));
    }

    /** The parts of the page that a changed stroke redraws. */
    #[Route('/sheets/{id}/plan/draw', name: 'sheet_draw', methods: ['GET'])]
    public function draw(Request $request, RackSheet $sheet): Response
    {
        return $this->render('plan/answer.html.twig', $this->view($request, $sheet, StrokeInput::of($request->query)));
    }

    #[Route('/sheets/{id}/plan', name: 'sheet_call', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function save(Request $request, RackSheet $sheet, SheetEditor $editor): Response
    {
        $input = StrokeInput::of($request->request);
        try {
            $choice = $input->choice(ShotAnswer::scale($sheet->getRack()));
            ShotAnswer::solve($sheet->getRack(), $choice);
        } catch (LaneError|UnprocessableEntityHttpException $e) {
            return $this->render('plan/shot.html.twig', [...$this->view($request, $sheet, $input), 'error' => $e->getMessage().' Nothing was saved.'], new Response(status: 422));
        }
        $editor->call($sheet, $choice, $request->request->getInt('version'));
        $this->addFlash('notice', 'The shot is saved with the sheet.');

        return $this->redirectToRoute('sheet_plan', ['id' => $sheet->getId()], Response::HTTP_SEE_OTHER);
    }

    private function input(Request $request, RackSheet $sheet): StrokeInput
    {
        if ($request->query->has('ball')) {
            return StrokeInput::of($request->query);
        }
        $shot = $sheet->getShot();
        if (null !== $shot && $sheet->getRack()->layout->has($shot->ball)) {
            return StrokeInput::fromChoice($shot, ShotAnswer::scale($sheet->getRack()));
        }

        return $this->opening($sheet->getRack());
    }

    /** Before anything is chosen: the lowest ball and the pocket with the least cut, hit in the middle at two lengths. */
    private function opening(Rack $rack): StrokeInput
    {
        foreach ($rack->game->balls() as $ball) {
            if ($rack->layout->has($ball) && $rack->layout->has(Ball::Cue)) {
                $pocket = EasiestPocket::leastCut($rack, $ball);

                return new StrokeInput($ball->label(), $pocket->value);
            }
        }

        return new StrokeInput();
    }

    /** @return array<string, mixed> */
    private function view(Request $request, RackSheet $sheet, StrokeInput $input): array
    {
        $rack = $sheet->getRack();
        $plan = new TablePlan($rack, '1' === $request->cookies->get('lane-upright'));
        $balls = array_values(array_filter($rack->game->balls(), $rack->layout->has(...)));
        $view = ['look' => LookInput::of($request->query, $rack, $input->ball), 'stroke_name' => '', 'sheet' => $sheet, 'plan' => $plan, 'balls' => $balls, 'input' => $input, 'has_cue' => $rack->layout->has(Ball::Cue), 'plot' => null, 'report' => null, 'shot' => null, 'tip' => null, 'error' => null, 'is_saved' => false];
        if ([] === $balls || !$view['has_cue']) {
            return $view;
        }
        $scale = ShotAnswer::scale($rack);
        try {
            $choice = $input->choice($scale);
            $view['tip'] = $choice->stroke->tip;
            $view['most_lengths'] = $scale->most();
            $shot = ShotAnswer::solve($rack, $choice);
            $view['shot'] = $shot;
            $view['plot'] = new ShotPlot($plan, $shot);
            $view['report'] = new ShotReport($shot, $rack->table);
            $view['stroke_name'] = StrokeName::of($shot, $rack->balls, $rack->table)->spoken();
            $saved = $sheet->getShot();
            $view['is_saved'] = null !== $saved && StrokeInput::fromChoice($saved, $scale) == StrokeInput::fromChoice($choice, $scale);
        } catch (LaneError|UnprocessableEntityHttpException $e) {
            $view['error'] = $e->getMessage();
        }

        return $view;
    }
}
