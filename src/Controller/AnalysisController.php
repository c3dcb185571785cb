<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use ZigLane\App\Analysis\AnalysisKind;
use ZigLane\App\Analysis\LegPlace;
use ZigLane\App\Analysis\OddsAnalysis;
use ZigLane\App\Analysis\ShotAnalysis;
use ZigLane\App\Drawing\AnalysisDrawing;
use ZigLane\App\Drawing\TableDrawing;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Sheet\AnalysisInput;
use ZigLane\App\Sheet\KnownFigures;
use ZigLane\App\Sheet\OneLook;
use ZigLane\App\Sheet\ShotUnits;
use ZigLane\App\Sheet\StrokeInput;
use ZigLane\App\Words\Refused;
use ZigLane\App\Words\Words;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\OutOfTime;
use ZigLane\Core\Odds\Rehearsal;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Shot\ShotSolver;

/** The parts of the shot desk that take longer than a redraw, each a fragment of its own. */
final class AnalysisController extends AbstractController
{
    private const REHEARSED = 200;

    public function __construct(private readonly Words $words, private readonly OneLook $one, private readonly KnownFigures $known)
    {
    }

    #[Route('/sheets/{id}/plan/look', name: 'sheet_look', methods: ['GET'])]
    public function look(Request $request, RackSheet $sheet, AnalysisDrawing $drawing): Response
    {
        $rack = LegPlace::of($sheet, $request->query)->rack;
        $table = new TableDrawing($rack, HeldScreen::isUpright($request));
        $stroke = StrokeInput::of($request->query);
        $units = new ShotUnits($rack->equipment, $stroke->unit);
        $analysis = $overlay = $error = null;
        try {
            $input = AnalysisInput::of($request->query, $rack, $stroke->ball);
            $choice = $stroke->choice($units);
            // Reading a table does not depend on the stroke.
            $question = AnalysisKind::Read === $input->kind ? [] : [$choice, $input, $table->projection];
            $analysis = $this->known->of([$input->kind, $rack, ...$question], fn (): ?ShotAnalysis => $this->one->of(
                $request,
                $sheet->getOwner(),
                new ShotSolver($rack->equipment),
                static fn (ShotSolver $solver): ?ShotAnalysis => $input->kind->of(
                    $input->request($rack, $choice, $solver, $units->lengths, $table->projection),
                ),
            ));
            $overlay = null === $analysis ? null : $drawing->of($analysis, $table->projection, $rack->equipment);
        } catch (CoreError|Refused $e) {
            if ($e instanceof OutOfTime && $request->query->getBoolean('more')) {
                // The first answer stays, and says that there is no more.
                return $this->render('shot/no_more.html.twig', [], new Response(headers: ['HX-Reswap' => 'none']));
            }
            $error = $this->words->error($e);
        }

        return $this->render(
            'shot/look.html.twig',
            ['sheet' => $sheet, 'table' => $table, 'units' => $units, 'analysis' => $analysis, 'overlay' => $overlay, 'error' => $error],
        );
    }

    #[Route('/sheets/{id}/plan/odds', name: 'sheet_odds', methods: ['GET'])]
    public function odds(Request $request, RackSheet $sheet): Response
    {
        $rack = LegPlace::of($sheet, $request->query)->rack;
        $odds = $error = null;
        try {
            $choice = StrokeInput::of($request->query)->choice(new ShotUnits($rack->equipment));
            $odds = $this->known->of(['odds', $rack, $choice], fn (): OddsAnalysis => $this->one->of(
                $request,
                $sheet->getOwner(),
                new ShotSolver($rack->equipment),
                static fn (ShotSolver $solver): OddsAnalysis => new OddsAnalysis($rack, $solver->solve($rack->layout, $choice), $solver),
            ));
        } catch (CoreError|Refused $e) {
            $error = $this->words->error($e);
        }

        return $this->render('shot/odds.html.twig', ['sheet' => $sheet, 'odds' => $odds, 'error' => $error]);
    }

    /** The chance of the whole run, which is played many times. */
    #[Route('/sheets/{id}/plan/run', name: 'sheet_run', methods: ['GET'])]
    public function run(Request $request, RackSheet $sheet): Response
    {
        $legs = $sheet->getLegs();
        $rehearsal = $error = null;
        try {
            $rehearsal = [] === $legs ? null : $this->one->of(
                $request,
                $sheet->getOwner(),
                new ShotSolver($sheet->getRack()->equipment),
                static fn (ShotSolver $solver): Rehearsal => Rehearsal::of($sheet->getRack(), $legs, self::REHEARSED, solver: $solver),
            );
        } catch (CoreError $e) {
            $error = $this->words->error($e);
        }

        return $this->render(
            'shot/run.html.twig',
            [
                'rehearsal' => $rehearsal,
                'error' => $error,
                'between' => null === $rehearsal ? null : Trials::interval($rehearsal->made[\count($legs) - 1], $rehearsal->tries),
            ],
        );
    }
}
