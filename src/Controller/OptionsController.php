<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use ZigLane\App\Analysis\OptionsView;
use ZigLane\App\Drawing\OptionDrawing;
use ZigLane\App\Drawing\TableDrawing;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\JobKind;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Log\TriesEditor;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Repository\ShotLog;
use ZigLane\App\Sheet\OptionTaker;
use ZigLane\App\Sheet\Planner;
use ZigLane\App\Sheet\ShotUnits;
use ZigLane\App\Words\Words;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Player\ExecutionErrors;

/** Go for it or play safe: the attacks and safeties of one position by the chance to win, of a sheet or of a rack at the table. */
final class OptionsController extends AbstractController
{
    /** Sheets whose players are offered as opponents. */
    private const SHEETS = 30;

    public function __construct(
        private readonly PlanJobRepository $jobs,
        private readonly ShotLog $log,
        private readonly TriesEditor $tries,
        private readonly Words $words,
        private readonly RackSheetRepository $sheets,
    ) {
    }

    #[Route('/sheets/{id}/options', name: 'sheet_options', methods: ['GET'])]
    public function show(Request $request, RackSheet $sheet): Response
    {
        return $this->render('options/page.html.twig', $this->ofSheet($request, $sheet));
    }

    /** The table with the options, for another of them or a better list. */
    #[Route('/sheets/{id}/options/board', name: 'sheet_options_board', methods: ['GET'])]
    public function board(Request $request, RackSheet $sheet): Response
    {
        return $this->render('options/board.html.twig', $this->ofSheet($request, $sheet));
    }

    #[Route('/sheets/{id}/options/progress', name: 'sheet_options_progress', methods: ['GET'])]
    public function progress(Request $request, RackSheet $sheet): Response
    {
        return $this->far($request, $this->jobs->latestOf($sheet, JobKind::Options), 'sheet_options', (string) $sheet->getId());
    }

    #[Route('/sheets/{id}/options', name: 'sheet_options_ask', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function ask(Request $request, RackSheet $sheet, Planner $planner): Response
    {
        $planner->weigh($sheet, $this->opponent($request, $sheet->getOwner()));

        return $this->redirectToRoute('sheet_options', ['id' => $sheet->getId()], Response::HTTP_SEE_OTHER);
    }

    /** An option becomes the sheet's shot: on the shot desk, or to be tried ten times. */
    #[Route('/sheets/{id}/options/take', name: 'sheet_options_take', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function take(Request $request, RackSheet $sheet, OptionTaker $taker): Response
    {
        $input = $request->request;
        $taker->take($sheet, $this->jobs->latestOf($sheet, JobKind::Options), $input->getInt('option'), $input->getInt('version'));

        return $this->redirectToRoute(
            'tries' === $input->getString('to') ? 'tries' : 'sheet_plan',
            ['id' => $sheet->getId()],
            Response::HTTP_SEE_OTHER,
        );
    }

    #[Route('/racks/{id}/options', name: 'rack_options', methods: ['GET'])]
    public function showAt(Request $request, ShotRack $rack): Response
    {
        return $this->render('options/page.html.twig', $this->ofRack($request, $rack));
    }

    #[Route('/racks/{id}/options/board', name: 'rack_options_board', methods: ['GET'])]
    public function boardAt(Request $request, ShotRack $rack): Response
    {
        return $this->render('options/board.html.twig', $this->ofRack($request, $rack));
    }

    #[Route('/racks/{id}/options/progress', name: 'rack_options_progress', methods: ['GET'])]
    public function progressAt(Request $request, ShotRack $rack): Response
    {
        return $this->far($request, $this->jobAt($rack), 'rack_options', (string) $rack->getId());
    }

    #[Route('/racks/{id}/options', name: 'rack_options_ask', methods: ['POST'])]
    #[IsCsrfTokenValid('rack')]
    public function askAt(Request $request, ShotRack $rack, Planner $planner): Response
    {
        $planner->weighAt($rack, $this->log->shotsOf($rack), $this->opponent($request, $rack->getOwner()));

        return $this->redirectToRoute('rack_options', ['id' => $rack->getId()], Response::HTTP_SEE_OTHER);
    }

    /** An option becomes what is shot next at the table. */
    #[Route('/racks/{id}/options/take', name: 'rack_options_take', methods: ['POST'])]
    #[IsCsrfTokenValid('rack')]
    public function takeAt(Request $request, ShotRack $rack, OptionTaker $taker): Response
    {
        $taker->takeAt($rack, $this->jobAt($rack), $request->request->getInt('option'), $this->log->shotsOf($rack));

        return $this->redirectToRoute('shoot', ['id' => $rack->getId()], Response::HTTP_SEE_OTHER);
    }

    /** How far the work is; says when there is a better list to draw. */
    private function far(Request $request, ?PlanJob $job, string $route, string $id): Response
    {
        $isNew = null !== $job && $job->getDrawn() !== $request->query->getInt('drawn', -1);

        return $this->render(
            'options/progress.html.twig',
            ['job' => $job, 'route' => $route, 'of' => $id, 'seconds' => null === $job ? 0.0 : $this->jobs->secondsOf($job)],
            new Response(headers: $isNew ? ['HX-Trigger-After-Swap' => 'options-drawn'] : []),
        );
    }

    private function jobAt(ShotRack $rack): ?PlanJob
    {
        return $this->jobs->latestAt($rack, $this->log->shotsOf($rack), JobKind::Options);
    }

    /** @return ExecutionErrors|null null for one like the player himself */
    private function opponent(Request $request, Account $owner): ?ExecutionErrors
    {
        $name = $request->request->getString('opponent');

        return ExecutionErrors::presets()[$name] ?? $this->sheets->ownedBy($owner, $name)?->getRack()->player;
    }

    /** @return array<string, string> the players of the account's other sheets, who are not like this one: the sheet's name by its id */
    private function others(Account $owner, ExecutionErrors $player): array
    {
        $others = $known = [];
        foreach ($this->sheets->ofOwner($owner, self::SHEETS) as $sheet) {
            $other = $sheet->getRack()->player;
            if ($other != $player && !\in_array($other, $known, false) && !\in_array($other, ExecutionErrors::presets(), false)) {
                $known[] = $other;
                $others[(string) $sheet->getId()] = $sheet->getName();
            }
        }

        return $others;
    }

    /**
     * Whom a job was weighed against: a preset, or the id of the sheet that holds him; empty for one like the player.
     *
     * @param array<string, string> $others
     */
    private function against(?PlanJob $job, array $others): string
    {
        $opponent = $job?->getOpponent();
        if (null === $opponent || $opponent == $job->getRack()->player) {
            return '';
        }
        foreach (array_keys($others) as $id) {
            if ($opponent == $this->sheets->find($id)?->getRack()->player) {
                return $id;
            }
        }

        return (string) array_search($opponent, ExecutionErrors::presets(), false);
    }

    /** @return array<string, mixed> */
    private function ofSheet(Request $request, RackSheet $sheet): array
    {
        $job = $this->jobs->latestOf($sheet, JobKind::Options);
        $view = $this->view($request, $job, 'sheet_options', (string) $sheet->getId(), $sheet->getOwner(), $sheet->getRack()->player);

        return $view + [
            'sheet' => $sheet,
            'rack' => null,
            'tries_of' => $this->triesOf($view['view'], $sheet),
            'table' => new TableDrawing($sheet->getRack(), HeldScreen::isUpright($request)),
            'is_stale' => null !== $job && $job->isOfAnother($sheet->getRack()->withPlayer($job->getRack()->player)),
            'units' => new ShotUnits($sheet->getRack()->equipment, $sheet->getOwner()->getTipUnit()),
        ];
    }

    /**
     * The player's own tries of each option, with the balls where they lie now.
     *
     * @return array<int, list<array{hits: int, count: int, interval: array{float, float}}>> by the number of the option
     */
    private function triesOf(?OptionsView $view, ?RackSheet $sheet): array
    {
        if (null === $view || null === $sheet) {
            return [];
        }
        $of = [];
        foreach ($this->tries->all($sheet) as $one) {
            foreach ($view->options->list as $number => $judged) {
                $choice = $judged->way->choice;
                $isTried = null !== $choice && null !== $one['choice'] && $one['count'] > 0 && $choice->isAbout($one['choice']);
                if ($isTried && $one['rack']->getStart()->layout == $view->rack($judged)->layout) {
                    $counts = $one['counts'];
                    $hits = $choice->isSafety ? $counts['safe'] : $counts['made'] + $counts['position'];
                    $of[$number][] = ['hits' => $hits, 'count' => $one['count'], 'interval' => Trials::interval($hits, $one['count'])];
                }
            }
        }

        return $of;
    }

    /** @return array<string, mixed> */
    private function ofRack(Request $request, ShotRack $rack): array
    {
        $view = $this->view(
            $request, $this->jobAt($rack), 'rack_options', (string) $rack->getId(), $rack->getOwner(), $rack->getNow()->player,
        );

        return $view + [
            'sheet' => $rack->getSheet(),
            'rack' => $rack,
            'tries_of' => $this->triesOf($view['view'], $rack->getSheet()),
            'table' => new TableDrawing($rack->getNow(), HeldScreen::isUpright($request)),
            'is_stale' => false,
            'units' => new ShotUnits($rack->getNow()->equipment, $rack->getOwner()->getTipUnit()),
        ];
    }

    /** @return array{view: OptionsView|null, ...<string, mixed>} */
    private function view(Request $request, ?PlanJob $job, string $route, string $id, Account $owner, ExecutionErrors $player): array
    {
        $view = $drawing = $error = null;
        try {
            $file = $job?->getOptions();
            $view = null === $file || [] === $file->options->list ? null : new OptionsView($file, $request->query->getInt('option'));
            $drawing = null === $view ? null : new OptionDrawing($view, HeldScreen::isUpright($request), $owner->getHand());
        } catch (CoreError) {
            $error = $this->words->said('refused.unreadablePlan');
        }

        return [
            'job' => $job,
            'route' => $route,
            'of' => $id,
            'seconds' => null === $job ? 0.0 : $this->jobs->secondsOf($job),
            'view' => $view,
            'drawing' => $drawing,
            'opponents' => array_keys(ExecutionErrors::PRESETS),
            'players' => $others = $this->others($owner, $job?->getRack()->player ?? $player),
            'against' => $this->against($job, $others),
            'error' => $error,
        ] + (null === $drawing ? [] : ['table' => $drawing->table]);
    }
}
