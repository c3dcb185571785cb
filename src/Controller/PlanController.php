<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use Symfony\Component\String\Slugger\SluggerInterface;
use ZigLane\App\Analysis\PlanView;
use ZigLane\App\Drawing\PlanDrawing;
use ZigLane\App\Drawing\TableDrawing;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\App\Sheet\PlanAdopter;
use ZigLane\App\Sheet\Planner;
use ZigLane\App\Sheet\PlanRequest;
use ZigLane\App\Sheet\ShotUnits;
use ZigLane\App\Words\Refused;
use ZigLane\App\Words\Words;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Plan\Weights;

/** The whole run: asked for, watched while it is planned, stepped through, taken over, gone on with from where the balls really lie. */
final class PlanController extends AbstractController
{
    /** Legs of a printed sheet at the most. */
    private const ON_PAPER = 20;

    public function __construct(private readonly PlanJobRepository $jobs, private readonly Words $words)
    {
    }

    #[Route('/sheets/{id}/run-out', name: 'sheet_runout', methods: ['GET'])]
    public function show(Request $request, RackSheet $sheet): Response
    {
        return $this->render('plan/page.html.twig', $this->view($request, $sheet));
    }

    /** The table with the plan, for one leg or plan more, or a better plan. */
    #[Route('/sheets/{id}/run-out/board', name: 'sheet_runout_board', methods: ['GET'])]
    public function board(Request $request, RackSheet $sheet): Response
    {
        return $this->render('plan/board.html.twig', $this->view($request, $sheet));
    }

    /** How far the work is; says when there is a better plan to draw. */
    #[Route('/sheets/{id}/run-out/progress', name: 'sheet_runout_progress', methods: ['GET'])]
    public function progress(Request $request, RackSheet $sheet): Response
    {
        $job = $this->jobs->latestOf($sheet);
        $isNew = null !== $job && $job->getDrawn() !== $request->query->getInt('drawn', -1);

        return $this->render(
            'plan/progress.html.twig',
            ['sheet' => $sheet, 'job' => $job, 'seconds' => null === $job ? 0.0 : $this->jobs->secondsOf($job)],
            new Response(headers: $isNew ? ['HX-Trigger-After-Swap' => 'plan-drawn'] : []),
        );
    }

    #[Route('/sheets/{id}/run-out', name: 'sheet_runout_ask', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function ask(Request $request, RackSheet $sheet, Planner $planner, PlanAdopter $adopter): Response
    {
        $asked = PlanRequest::of($request->request);
        try {
            // Locking a leg of a plan makes the plan the sheet's run first.
            if ($request->request->has('take')) {
                $adopter->adopt(
                    $sheet,
                    $this->jobs->latestOf($sheet),
                    $request->request->getInt('take'),
                    $request->request->getInt('version'),
                );
            }
            $planner->ask($sheet, $asked);
        } catch (CoreError|Refused $e) {
            return $this->render(
                'plan/page.html.twig',
                ['error' => $this->words->error($e)] + $this->view($request, $sheet, $asked),
                new Response(status: 422),
            );
        }

        return $this->redirectToRoute('sheet_runout', ['id' => $sheet->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/sheets/{id}/run-out/stop', name: 'sheet_runout_stop', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function stop(RackSheet $sheet, Planner $planner): Response
    {
        $planner->stop($sheet);

        return $this->redirectToRoute('sheet_runout', ['id' => $sheet->getId()], Response::HTTP_SEE_OTHER);
    }

    /** The plan becomes the sheet's own run, to be changed leg by leg. */
    #[Route('/sheets/{id}/run-out/take', name: 'sheet_runout_take', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function take(Request $request, RackSheet $sheet, PlanAdopter $adopter): Response
    {
        $adopter->adopt($sheet, $this->jobs->latestOf($sheet), $request->request->getInt('plan'), $request->request->getInt('version'));
        $this->addFlash('notice', 'The plan is the run of this sheet now: every leg can be changed.');

        return $this->redirectToRoute(
            'sheet_plan',
            ['id' => $sheet->getId(), 'leg' => max(1, $request->request->getInt('leg', 1))],
            Response::HTTP_SEE_OTHER,
        );
    }

    /**
     * "I ended up here": the balls of the legs that were shot are taken off, the cue ball is put where it lies, and the rest is planned.
     */
    #[Route('/sheets/{id}/run-out/here', name: 'sheet_runout_here', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function here(Request $request, RackSheet $sheet, PlanAdopter $adopter, Planner $planner): Response
    {
        try {
            $adopter->endedUp(
                $sheet,
                $this->jobs->latestOf($sheet),
                $request->request->getInt('plan'),
                $request->request->getInt('leg', 1),
                $request->request->getString('at'),
                $request->request->getInt('version'),
            );
            $planner->ask($sheet, PlanRequest::again(null, $sheet->getOwner()->getWeights()));
        } catch (CoreError|Refused $e) {
            return $this->render(
                'plan/page.html.twig',
                ['error' => $this->words->error($e)] + $this->view($request, $sheet),
                new Response(status: 422),
            );
        }

        return $this->redirectToRoute('sheet_runout', ['id' => $sheet->getId()], Response::HTTP_SEE_OTHER);
    }

    /** The run leg by leg with drawings, to print and hang on the wall. */
    #[Route('/sheets/{id}/run-out/sheet', name: 'sheet_runout_sheet', methods: ['GET'])]
    public function onPaper(Request $request, RackSheet $sheet): Response
    {
        $file = $this->jobs->latestOf($sheet)?->getPlan() ?? throw $this->createNotFoundException('There is no plan to print yet.');
        $plan = $file->plan($request->query->getInt('plan'));
        $legs = [];
        for ($number = 1; $number <= min(self::ON_PAPER, \count($plan->legs)); ++$number) {
            $view = new PlanView($file, $request->query->getInt('plan'), $number);
            $legs[] = ['run' => $view, 'drawing' => new PlanDrawing($view, $this->words, false)];
        }

        return $this->render('plan/sheet.html.twig', [
            'sheet' => $sheet,
            'legs' => $legs,
            'units' => new ShotUnits($plan->rack->equipment, $sheet->getOwner()->getTipUnit()),
        ]);
    }

    #[Route('/sheets/{id}/run-out/export', name: 'sheet_runout_export', methods: ['GET'])]
    public function export(RackSheet $sheet, SluggerInterface $slugger): Response
    {
        $plan = $this->jobs->latestOf($sheet)?->getPlanFile() ?? throw $this->createNotFoundException('There is no plan to export yet.');
        $name = strtolower((string) $slugger->slug($sheet->getName())) ?: 'rack';

        return Download::of($plan."\n", $name.'.plan.json');
    }

    /** @return array<string, mixed> */
    private function view(Request $request, RackSheet $sheet, ?PlanRequest $asked = null): array
    {
        $job = $this->jobs->latestOf($sheet);
        $asked ??= PlanRequest::again($job, $sheet->getOwner()->getWeights());
        $from = $request->isMethod('POST') ? $request->request : $request->query;
        $isUpright = HeldScreen::isUpright($request);
        $view = $drawing = $error = null;
        try {
            $file = $job?->getPlan();
            $view = null === $file ? null : new PlanView($file, $from->getInt('plan'), $from->getInt('leg', 1));
            $drawing = null === $view ? null : new PlanDrawing($view, $this->words, $isUpright, $sheet->getOwner()->getHand());
        } catch (CoreError) {
            $error = $this->words->said('refused.unreadablePlan');
        }

        return [
            'sheet' => $sheet,
            'job' => $job,
            'seconds' => null === $job ? 0.0 : $this->jobs->secondsOf($job),
            'run' => $view,
            'drawing' => $drawing,
            'table' => $drawing->table ?? new TableDrawing($sheet->getRack(), $isUpright),
            'units' => new ShotUnits($sheet->getRack()->equipment, $sheet->getOwner()->getTipUnit()),
            'asked' => $asked,
            'asked_weights' => $asked->weights + array_map(static fn (): string => '0', Weights::LIMITS),
            'is_stale' => null !== $job && $job->isOfAnother($sheet->getRack()),
            'zone_least' => Plan::ZONE,
            'error' => $error,
        ];
    }
}
