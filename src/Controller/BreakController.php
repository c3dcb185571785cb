<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\InputBag;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Breaking\BreakRequest;
use ZigLane\App\Drawing\BreakDrawing;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\BreakJob;
use ZigLane\App\Message\FindBreak;
use ZigLane\App\Repository\BreakJobs;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\Sheet\ErrorSource;
use ZigLane\App\Sheet\OneLook;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\App\Words\Refused;
use ZigLane\App\Words\Words;
use ZigLane\Core\Breaking\BreakStroke;
use ZigLane\Core\Breaking\BreakTrials;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Shot\ShotSolver;

/** The break of each game, chosen by what many of it come to. */
#[Route('/break')]
final class BreakController extends AbstractController
{
    private const BREAKS = 200;
    /** Seconds that a look may take. */
    private const MOST = 6.0;
    private const FASTEST = [4.0, 12.0];

    public function __construct(
        private readonly OwnTables $tables,
        private readonly ErrorSource $errors,
        private readonly BreakJobs $jobs,
        private readonly Words $words,
    ) {
    }

    #[Route('', name: 'break', methods: ['GET'])]
    public function show(Request $request, #[CurrentUser] Account $account): Response
    {
        $one = $this->asked($request->query, $account);
        $beside = $request->query->all('beside');
        $sides = [$one];
        if ([] !== $beside) {
            $values = array_map(static fn (mixed $value): string => \is_scalar($value) ? (string) $value : '', $beside + $one->query());
            /** @var InputBag<string> $input */
            $input = new InputBag(array_combine(array_map(strval(...), array_keys($values)), $values));
            $sides[] = $this->asked($input, $account);
        }
        $own = $this->jobs->own($account, $one->game);
        $job = $this->jobs->latest($account, $one->game);

        return $this->render('break/page.html.twig', [
            'one' => $one,
            'sides' => $sides,
            'games' => Game::cases(),
            'racks' => array_keys(BreakRequest::RACKS),
            'players' => [...(null === $this->errors->ofLog($account) ? [] : ['you']), ...array_keys(ExecutionErrors::presets())],
            'tables' => $this->tables->all($account),
            'limits' => BreakStroke::LIMITS,
            'usual' => BreakStroke::usual($one->game),
            'own' => $own,
            'own_made' => Trials::interval($own['made'], max(1, $own['breaks'])),
            'job' => $job,
        ]);
    }

    /** What two hundred of a break come to. */
    #[Route('/look', name: 'break_look', methods: ['GET'])]
    public function look(Request $request, #[CurrentUser] Account $account, OneLook $one): Response
    {
        $asked = $this->asked($request->query, $account);
        $tally = $error = null;
        try {
            $tally = $one->of(
                $request, $account, new ShotSolver($asked->equipment),
                static fn (ShotSolver $solver) => (new BreakTrials(
                    $asked->game, $asked->stroke, $asked->player, $solver, looseness: $asked->looseness(),
                ))->play(0, self::BREAKS),
                self::MOST,
            );
        } catch (CoreError $e) {
            $error = $this->words->error($e);
        }

        return $this->render('break/look.html.twig', [
            'asked' => $asked,
            'tally' => $tally,
            'drawing' => null === $error ? new BreakDrawing($asked, $tally, HeldScreen::isUpright($request)) : null,
            'error' => $error,
        ]);
    }

    /** One of these breaks becomes a sheet. */
    #[Route('/sheet', name: 'break_sheet', methods: ['POST'])]
    #[IsCsrfTokenValid('break')]
    public function sheet(Request $request, #[CurrentUser] Account $account, SheetEditor $editor): Response
    {
        $asked = $this->asked($request->request, $account);
        $trials = new BreakTrials(
            $asked->game, $asked->stroke, $asked->player, new ShotSolver($asked->equipment), looseness: $asked->looseness(),
        );
        $break = $trials->one($request->request->getInt('number'), 1) ?? throw Refused::because('noBreak');
        $submission = $request->request->getString('submission');
        $sheet = $editor->create(
            $account,
            $this->words->said('break.sheet', ['game' => $this->words->said('name.game.'.$asked->game->value)]),
            $break->rackAfter($asked->game, $asked->equipment, $asked->player),
            Uuid::isValid($submission) ? Uuid::fromString($submission) : Uuid::v4(),
        );

        return $this->redirectToRoute('sheet_layout', ['id' => $sheet->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/find', name: 'break_find', methods: ['POST'])]
    #[IsCsrfTokenValid('break')]
    public function find(
        Request $request, #[CurrentUser] Account $account, EntityManagerInterface $manager, MessageBusInterface $bus,
        ClockInterface $clock,
    ): Response {
        $asked = $this->asked($request->request, $account);
        $last = $this->jobs->latest($account, $asked->game);
        // One of a game at a time.
        if (true !== $last?->isUnderWay($clock->now())) {
            $fastest = max(self::FASTEST[0], min(self::FASTEST[1], (float) $request->request->getString('fastest', '12')));
            // The rules of the room come first.
            $fastest = $account->getHouseRules()->hardBreak ? min($fastest, BreakStroke::HARD - 0.1) : $fastest;
            $job = new BreakJob($account, $asked->game, $asked->player, $asked->equipment, $fastest, $clock->now());
            $manager->wrapInTransaction(static function () use ($manager, $bus, $job, $account): void {
                $manager->persist($job);
                $manager->flush();
                $bus->dispatch(new FindBreak((string) $job->getId(), $account->party()));
            });
        }

        return $this->redirectToRoute('break', $asked->query(), Response::HTTP_SEE_OTHER);
    }

    #[Route('/found', name: 'break_found', methods: ['GET'])]
    public function found(Request $request, #[CurrentUser] Account $account): Response
    {
        $asked = $this->asked($request->query, $account);

        return $this->render('break/found.html.twig', ['one' => $asked, 'job' => $this->jobs->latest($account, $asked->game)]);
    }

    /** @param InputBag<string> $input */
    private function asked(InputBag $input, Account $account): BreakRequest
    {
        return BreakRequest::of($input, $account, $this->tables, $this->errors);
    }
}
