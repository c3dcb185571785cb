<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Account\ImportDesk;
use ZigLane\App\Entity\Account;
use ZigLane\App\Log\LogCsv;
use ZigLane\App\Log\LogEditor;
use ZigLane\App\Log\LogPage;
use ZigLane\App\Log\LogReader;
use ZigLane\App\Repository\Imports;
use ZigLane\App\Sheet\SpotText;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\Fault;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Log\RackResult;
use ZigLane\Core\Log\Records;
use ZigLane\Core\Log\ShotGroup;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Table\TableProfile;

/** The log: what was shot, found again by date, game and kind; records; files out and in. */
final class LogController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $manager,
        private readonly LogReader $log,
        private readonly Imports $imports,
    ) {
    }

    #[Route('/log', name: 'log', methods: ['GET'])]
    public function list(Request $request, #[CurrentUser] Account $account): Response
    {
        return $this->page($request, $account);
    }

    #[Route('/log/records', name: 'log_records', methods: ['GET'])]
    public function records(#[CurrentUser] Account $account): Response
    {
        $log = $this->log->counted($account);
        $games = [];
        foreach (Game::cases() as $game) {
            $records = Records::of($log, $game);
            if ($records->racks > 0 || $records->breaks > 0 || $records->highRun > 0) {
                $games[$game->value] = $records;
            }
        }

        return $this->render('log/records.html.twig', ['all' => Records::of($log), 'games' => $games]);
    }

    /** Only the result of a rack, or a run of straight pool. */
    #[Route('/log/result', name: 'log_result', methods: ['POST'])]
    #[IsCsrfTokenValid('log')]
    public function result(Request $request, #[CurrentUser] Account $account, LogEditor $editor): Response
    {
        $input = $request->request;
        $id = $input->getString('id');
        $game = Game::tryFrom($input->getString('game'));
        if (null === $game || !Uuid::isValid($id)) {
            return $this->page($request, $account, [new Fault('', new Fact('refused.entry'))]);
        }
        $count = static fn (string $field): ?int => '' === trim($input->getString($field)) ? null : max(
            0,
            min(9999, $input->getInt($field)),
        );
        $editor->result(
            $account,
            Uuid::fromString($id),
            new Rack($game, Layout::empty()),
            RackResult::tryFrom($input->getString('end')),
            $count('balls'),
            $count('racks'),
        );
        $this->addFlash('notice', 'The result is in the log.');

        return $this->redirectToRoute('log', [], Response::HTTP_SEE_OTHER);
    }

    /** A break by itself. */
    #[Route('/log/break', name: 'log_break', methods: ['POST'])]
    #[IsCsrfTokenValid('log')]
    public function broke(Request $request, #[CurrentUser] Account $account, LogEditor $editor): Response
    {
        $input = $request->request;
        $game = Game::tryFrom($input->getString('game'));
        $id = $input->getString('id');
        if (null === $game || !Uuid::isValid($id)) {
            throw Refused::because('entry');
        }
        $fell = [];
        foreach (preg_split('/[\s,]+/', $input->getString('fell'), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $name) {
            $ball = Ball::named($name);
            if (null === $ball || Ball::Cue === $ball || !$game->uses($ball)) {
                throw Refused::because('ball');
            }
            $fell[$ball->value] = $ball;
        }
        $after = Layout::empty();
        foreach (['cue' => Ball::Cue, 'one' => Ball::One] as $field => $ball) {
            if ('' !== trim($input->getString($field))) {
                $after = $after->with($ball, SpotText::spot($input->getString($field), new TableProfile()));
            }
        }
        $shot = $input->getString('shot');
        $wing = $input->getString('wing');
        $editor->broke(
            $account,
            Uuid::fromString($id),
            $game,
            array_values($fell),
            $input->getBoolean('scratch'),
            '' === $shot ? null : 'yes' === $shot,
            '' === $wing ? null : 'yes' === $wing,
            $after,
        );
        $this->addFlash('notice', 'The break is in the log.');

        return $this->redirectToRoute('log', [], Response::HTTP_SEE_OTHER);
    }

    #[Route('/log/export.json', name: 'log_export', methods: ['GET'])]
    public function export(#[CurrentUser] Account $account): Response
    {
        return Download::stream(LogFile::stream($this->log->player($account), $this->log->written($account)), 'pool.log.json');
    }

    #[Route('/log/export.csv', name: 'log_csv', methods: ['GET'])]
    public function csv(#[CurrentUser] Account $account, LogCsv $csv): Response
    {
        return Download::stream($csv->stream($this->log->outings($account)), 'pool.log.csv', 'text/csv; charset=utf-8');
    }

    #[Route('/log/import', name: 'log_import', methods: ['POST'])]
    #[IsCsrfTokenValid('log')]
    public function import(Request $request, #[CurrentUser] Account $account, ImportDesk $imports): Response
    {
        $imports->begin($account, $request, true);

        return $this->redirectToRoute('log', ['_fragment' => 'import'], Response::HTTP_SEE_OTHER);
    }

    /** @param list<Fault> $faults */
    private function page(Request $request, Account $account, array $faults = []): Response
    {
        $page = LogPage::of($request->query);
        [$rows, $next] = $page->rows($this->manager->getConnection(), $account);

        return $this->render('log/list.html.twig', [
            'rows' => $rows,
            'next' => $next,
            'asked' => $page->asked,
            'games' => Game::cases(),
            'kinds' => ShotKind::cases(),
            'groups' => ShotGroup::cases(),
            'ends' => RackResult::cases(),
            'faults' => $faults,
            'submission' => (string) Uuid::v7(),
            'import' => $this->imports->latest($account),
            'mib' => ImportDesk::most($account),
        ], new Response(status: [] === $faults ? 200 : 422));
    }
}
