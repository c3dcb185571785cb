<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\UnprocessableEntityHttpException;
use Symfony\Component\Routing\Attribute\Route;
use ZigLane\App\Drawing\Looks;
use ZigLane\App\Drawing\OddsReport;
use ZigLane\App\Drawing\TableDrawing;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Sheet\LegPlace;
use ZigLane\App\Sheet\LookInput;
use ZigLane\App\Sheet\ShotUnits;
use ZigLane\App\Sheet\StrokeInput;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Odds\Rehearsal;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Shot\ShotSolver;

/** The parts of the shot desk that take longer than a redraw, each a fragment of its own. */
final class LookController extends AbstractController
{
    private const REHEARSED = 200;

    #[Route('/sheets/{id}/plan/look', name: 'sheet_look', methods: ['GET'])]
    public function look(Request $request, RackSheet $sheet): Response
    {
        $rack = LegPlace::of($sheet, $request->query)->rack;
        $plan = TableDrawing::heldBy($request, $rack);
        $stroke = StrokeInput::of($request->query);
        $looks = $error = null;
        try {
            $units = new ShotUnits($rack->equipment, $stroke->unit);
            $looks = Looks::at($rack, $plan, (new ShotSolver($rack->equipment))->solve($rack->layout, $stroke->choice($units)), LookInput::of($request->query, $rack, $stroke->ball), $units);
        } catch (CoreError|UnprocessableEntityHttpException $e) {
            $error = $e->getMessage();
        }

        return $this->render('plan/look.html.twig', ['sheet' => $sheet, 'plan' => $plan, 'looks' => $looks, 'error' => $error]);
    }

    #[Route('/sheets/{id}/plan/odds', name: 'sheet_odds', methods: ['GET'])]
    public function odds(Request $request, RackSheet $sheet): Response
    {
        $rack = LegPlace::of($sheet, $request->query)->rack;
        $report = $error = null;
        try {
            $shot = (new ShotSolver($rack->equipment))->solve($rack->layout, StrokeInput::of($request->query)->choice(new ShotUnits($rack->equipment)));
            $report = new OddsReport($rack, $shot);
        } catch (CoreError|UnprocessableEntityHttpException $e) {
            $error = $e->getMessage();
        }

        return $this->render('plan/odds.html.twig', ['sheet' => $sheet, 'report' => $report, 'error' => $error]);
    }

    /** The chance of the whole run, which is played many times. */
    #[Route('/sheets/{id}/plan/run', name: 'sheet_run', methods: ['GET'])]
    public function run(RackSheet $sheet): Response
    {
        $legs = $sheet->getLegs();
        $rehearsal = [] === $legs ? null : Rehearsal::of($sheet->getRack(), $legs, self::REHEARSED);

        return $this->render('plan/run.html.twig', ['rehearsal' => $rehearsal, 'between' => null === $rehearsal ? null : Trials::interval($rehearsal->made[\count($legs) - 1], $rehearsal->tries)]);
    }
}
