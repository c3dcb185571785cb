<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Drawing\DrillDrawing;
use ZigLane\App\Drawing\ShotDrawing;
use ZigLane\App\Entity\Account;
use ZigLane\App\Practice\DrillCard;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Practice\DrillStroke;
use ZigLane\App\Practice\ParDesk;
use ZigLane\App\Practice\ParPlot;
use ZigLane\App\Practice\PracticeEditor;
use ZigLane\App\Practice\Progress;
use ZigLane\App\Practice\ShelvedDrill;
use ZigLane\App\Repository\DrillSessions;
use ZigLane\App\Sheet\OneLook;
use ZigLane\App\Sheet\ShotUnits;
use ZigLane\App\State\ChangedElsewhere;
use ZigLane\App\Words\Refused;
use ZigLane\App\Words\Words;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Practice\ParRuns;
use ZigLane\Core\Practice\SetUp;
use ZigLane\Core\Shot\ShotSolver;

/** Drills: the list, one of them with its par and scores, its card, and own ones that are copied, changed and taken in. */
#[Route('/drills')]
final class DrillController extends AbstractController
{
    /** Drills of a printed sheet at the most. */
    private const ON_PAPER = 12;
    /** Runs of a drill that is being changed. */
    private const TRIED = 20;
    private const KEY = ['key' => '[a-z0-9-]{1,60}'];

    public function __construct(
        private readonly DrillShelf $shelf,
        private readonly ParDesk $pars,
        private readonly DrillSessions $sessions,
        private readonly Words $words,
    ) {
    }

    #[Route('', name: 'drills', methods: ['GET'])]
    public function list(#[CurrentUser] Account $account, Progress $progress): Response
    {
        $bySkill = $drawings = [];
        $equipment = $account->getEquipment();
        foreach ($this->shelf->all($account) as $drill) {
            $bySkill[null === $drill->own ? $drill->file->drill->skill->value : 'own'][] = $drill;
            try {
                $layout = (new SetUp($drill->file->drill, $equipment))->attempt(1)->layout;
            } catch (CoreError) {
                $layout = Layout::empty();
            }
            $drawings[$drill->key] = new DrillDrawing($drill->file->drill, $layout, $equipment);
        }

        $best = $progress->best($account);

        return $this->render('drills/list.html.twig', [
            'by_skill' => $bySkill,
            'drawings' => $drawings,
            'best' => $best,
            'due' => $progress->due($account, 30, $best, $progress->scores($account)),
            'submission' => (string) Uuid::v7(),
        ]);
    }

    /** Several drills with their texts on paper: a lesson, or what is due. */
    #[Route('/sheet', name: 'drills_sheet', methods: ['GET'])]
    public function onPaper(Request $request, #[CurrentUser] Account $account): Response
    {
        $cards = [];
        foreach (\array_slice(explode(',', $request->query->getString('of')), 0, self::ON_PAPER) as $key) {
            if (1 === preg_match('/^[a-z0-9-]{1,60}$/', $key)) {
                $cards[] = $this->view($request, $this->shelf->drill($account, $key), $account);
            }
        }

        return [] === $cards
            ? throw $this->createNotFoundException('There are no drills to print.')
            : $this->render('drills/sheet.html.twig', ['cards' => $cards]);
    }

    #[Route('/import', name: 'drill_import', methods: ['POST'])]
    #[IsCsrfTokenValid('drill')]
    public function import(Request $request, #[CurrentUser] Account $account): Response
    {
        $drill = $this->shelf->keep($account, DrillFile::parse(Upload::content($request, DrillFile::MAX_BYTES, 'drillUpload')));

        return $this->redirectToRoute('drill', ['key' => $drill->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/{key}', name: 'drill', requirements: self::KEY, methods: ['GET'])]
    public function show(Request $request, string $key, #[CurrentUser] Account $account): Response
    {
        return $this->render('drills/show.html.twig', $this->view($request, $this->shelf->drill($account, $key), $account));
    }

    /** The pars so far, while they are worked out. */
    #[Route('/{key}/pars', name: 'drill_pars', requirements: self::KEY, methods: ['GET'])]
    public function pars(Request $request, string $key, #[CurrentUser] Account $account): Response
    {
        return $this->render('drills/pars.html.twig', $this->view($request, $this->shelf->drill($account, $key), $account));
    }

    #[Route('/{key}/pars', name: 'drill_pars_ask', requirements: self::KEY, methods: ['POST'])]
    #[IsCsrfTokenValid('drill')]
    public function ask(Request $request, string $key, #[CurrentUser] Account $account): Response
    {
        $drill = $this->shelf->drill($account, $key);
        $level = self::level($request->request->getInt('level'), $drill);
        $this->pars->ask($account, $drill->file, $level);

        return $this->redirectToRoute('drill', ['key' => $key, 'level' => $level], Response::HTTP_SEE_OTHER);
    }

    #[Route('/{key}/begin', name: 'drill_begin', requirements: self::KEY, methods: ['POST'])]
    #[IsCsrfTokenValid('drill')]
    public function begin(Request $request, string $key, #[CurrentUser] Account $account, PracticeEditor $editor): Response
    {
        $id = $request->request->getString('submission');
        $session = $editor->begin(
            $account,
            Uuid::isValid($id) ? Uuid::fromString($id) : throw Refused::because('entry'),
            $this->shelf->drill($account, $key),
            $request->request->getInt('level'),
            'scored' === $request->request->getString('mode'),
            explode(',', $request->request->getString('others')),
            explode(',', $request->request->getString('then')),
        );

        return $this->redirectToRoute('practice', ['id' => $session->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/{key}/copy', name: 'drill_copy', requirements: self::KEY, methods: ['POST'])]
    #[IsCsrfTokenValid('drill')]
    public function copy(string $key, #[CurrentUser] Account $account): Response
    {
        $copy = $this->shelf->keep($account, $this->shelf->drill($account, $key)->file);

        return $this->redirectToRoute('drill_edit', ['key' => $copy->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/{key}/edit', name: 'drill_edit', requirements: self::KEY, methods: ['GET'])]
    public function edit(Request $request, string $key, #[CurrentUser] Account $account): Response
    {
        $drill = $this->own($account, $key);

        $view = $this->view($request, $drill, $account);

        return $this->render('drills/edit.html.twig', $view + ['text' => $drill->file->write(), 'faults' => []]);
    }

    #[Route('/{key}/edit', name: 'drill_change', requirements: self::KEY, methods: ['POST'])]
    #[IsCsrfTokenValid('drill')]
    public function change(Request $request, string $key, #[CurrentUser] Account $account): Response
    {
        $drill = $this->own($account, $key);
        \assert(null !== $drill->own);
        $back = $this->generateUrl('drill_edit', ['key' => $key]);
        ChangedElsewhere::unless($request, $drill->own->getVersion(), ['file' => $drill->file->write()], $back);
        $text = $request->request->getString('file');
        $level = trim($request->request->getString('level'));
        try {
            $file = DrillFile::parse($text);
            // The drill stays as it was; what is changed is one of its levels.
            $file = '' === $level ? $file : $drill->file->withLevel($level, $file);
        } catch (InvalidFile $e) {
            return $this->render(
                'drills/edit.html.twig',
                $this->view($request, $drill, $account) + ['text' => $text, 'faults' => explode("\n", $this->words->error($e))],
                new Response(status: Response::HTTP_UNPROCESSABLE_ENTITY),
            );
        }
        $this->shelf->change($drill->own, $file);

        return $this->redirectToRoute(
            'drill',
            ['key' => $key] + ('' === $level ? [] : ['level' => \count($file->drill->levels)]),
            Response::HTTP_SEE_OTHER,
        );
    }

    /** What a drill that is being changed comes to: a few runs of a club player, not kept. */
    #[Route('/{key}/try', name: 'drill_try', requirements: self::KEY, methods: ['POST'])]
    #[IsCsrfTokenValid('drill')]
    public function tryOut(Request $request, string $key, #[CurrentUser] Account $account, OneLook $one): Response
    {
        $this->own($account, $key);
        $par = $stroke = null;
        $faults = [];
        try {
            $drill = DrillFile::parse($request->request->getString('file'))->drill;
            $player = ExecutionErrors::presets()[ParDesk::USUAL];
            $compute = static function (ShotSolver $solver) use ($drill, $player): array {
                $runs = new ParRuns($drill, $solver, $player);
                $first = $runs->first()?->choice;

                return [$runs->play(self::TRIED), $first];
            };
            [$par, $stroke] = $one->of($request, $account, new ShotSolver($account->getEquipment()), $compute);
        } catch (InvalidFile $e) {
            $faults = explode("\n", $this->words->error($e));
        } catch (CoreError $e) {
            $faults = [$this->words->error($e)];
        }
        $units = new ShotUnits($account->getEquipment(), $account->getTipUnit());

        return $this->render('drills/tried.html.twig', ['par' => $par, 'stroke' => $stroke, 'faults' => $faults, 'units' => $units]);
    }

    #[Route('/{key}/delete', name: 'drill_delete', requirements: self::KEY, methods: ['POST'])]
    #[IsCsrfTokenValid('drill')]
    public function delete(string $key, #[CurrentUser] Account $account, Words $words): Response
    {
        $drill = $this->own($account, $key);
        \assert(null !== $drill->own);
        $this->shelf->delete($drill->own);
        $this->addFlash('notice', $words->said('done.drillDeleted', ['drill' => $drill->file->drill->name]));

        return $this->redirectToRoute('drills', [], Response::HTTP_SEE_OTHER);
    }

    #[Route('/{key}/export', name: 'drill_export', requirements: self::KEY, methods: ['GET'])]
    public function export(string $key, #[CurrentUser] Account $account): Response
    {
        $drill = $this->shelf->drill($account, $key);

        return Download::of($drill->file->write()."\n", (null === $drill->own ? $key : 'drill').'.drill.json');
    }

    /** Set-up cards to print, four on a page. */
    #[Route('/{key}/card', name: 'drill_card', requirements: self::KEY, methods: ['GET'])]
    public function card(Request $request, string $key, #[CurrentUser] Account $account): Response
    {
        return $this->render('drills/card.html.twig', $this->view($request, $this->shelf->drill($account, $key), $account));
    }

    private function own(Account $account, string $key): ShelvedDrill
    {
        $drill = $this->shelf->drill($account, $key);

        return null === $drill->own ? throw $this->createNotFoundException('There is no such drill of yours.') : $drill;
    }

    private static function level(int $level, ShelvedDrill $drill): int
    {
        return max(0, min(\count($drill->file->drill->levels), $level));
    }

    /** @return array<string, mixed> */
    private function view(Request $request, ShelvedDrill $shelved, Account $account): array
    {
        $level = self::level($request->query->getInt('level'), $shelved);
        $drill = $shelved->file->at($level);
        $equipment = $account->getEquipment();
        $layout = Layout::empty();
        $error = null;
        try {
            $layout = (new SetUp($drill, $equipment))->attempt(1)->layout;
        } catch (CoreError $e) {
            $error = $this->words->error($e);
        }
        $sessions = array_values(array_filter(
            $this->sessions->ofDrill($account, $shelved->key),
            static fn ($session): bool => $session->getLevel() === $level,
        ));
        $known = $this->pars->known($account, $shelved->file, $level);

        $drawing = new DrillDrawing($drill, $layout, $equipment, HeldScreen::isUpright($request));
        $stroke = DrillStroke::of($drill, $layout, $equipment, $known[$this->pars->whose($account)] ?? $known[ParDesk::USUAL] ?? null);
        $isShown = null !== $stroke && $request->query->getBoolean('stroke');

        return [
            'shelved' => $shelved,
            'drill' => $drill,
            'level' => $level,
            'drawing' => $drawing,
            'stroke' => $stroke,
            'shot' => $isShown ? new ShotDrawing($drawing->table, $stroke->shot) : null,
            'units' => new ShotUnits($equipment, $account->getTipUnit()),
            'card' => new DrillCard($drill, $equipment),
            'layout' => $layout,
            'error' => $error,
            'sessions' => $sessions,
            'plot' => new ParPlot(
                $known,
                $sessions,
                $shelved->file->hash(),
                $this->pars->whose($account),
                \count($this->pars->hands($account)),
            ),
            'submission' => (string) Uuid::v7(),
        ];
    }
}
