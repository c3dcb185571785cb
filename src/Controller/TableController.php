<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use ZigLane\App\Camera\TableCamera;
use ZigLane\App\Drawing\TableDrawing;
use ZigLane\App\Drawing\TestDrawing;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\State\ChangedElsewhere;
use ZigLane\App\Tables\TableInput;
use ZigLane\App\Tables\TableShelf;
use ZigLane\App\Tables\TableView;
use ZigLane\App\Tables\TestEntry;
use ZigLane\App\Words\Refused;
use ZigLane\App\Words\Words;
use ZigLane\Core\Calibration\UsualTests;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Table\TypicalTable;

/** The tables of a player: their profiles, their tests, and what these taught. */
#[Route('/tables')]
final class TableController extends AbstractController
{
    private const TEST = ['id' => Requirement::UUID, 'test' => Requirement::ASCII_SLUG];

    public function __construct(
        private readonly OwnTables $tables,
        private readonly TableShelf $shelf,
        private readonly Words $words,
        private readonly TableCamera $camera,
    ) {
    }

    #[Route('', name: 'tables', methods: ['GET'])]
    public function list(#[CurrentUser] Account $account): Response
    {
        return $this->render('tables/list.html.twig', ['tables' => $this->tables->all($account), 'typical' => TypicalTable::cases()]);
    }

    /** A table of one's own of a typical kind. */
    #[Route('', name: 'table_make', methods: ['POST'])]
    #[IsCsrfTokenValid('table')]
    public function make(Request $request, #[CurrentUser] Account $account): Response
    {
        $kind = TypicalTable::tryFrom($request->request->getString('kind')) ?? throw Refused::because('change');
        $name = mb_substr(trim(mb_scrub($request->request->getString('name'))), 0, TableFile::MAX_NAME);
        $table = $this->shelf->keep(
            $account,
            new TableFile('' === $name ? $this->words->said('tables.kind.'.$kind->value) : $name, $kind->equipment()),
        );

        return $this->redirectToRoute('table', ['id' => $table->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/import', name: 'table_import', methods: ['POST'])]
    #[IsCsrfTokenValid('table')]
    public function import(Request $request, #[CurrentUser] Account $account): Response
    {
        $table = $this->shelf->keep($account, TableFile::parse(Upload::content($request, TableFile::MAX_BYTES, 'tableUpload')));

        return $this->redirectToRoute('table', ['id' => $table->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/{id}', name: 'table', methods: ['GET'])]
    public function show(OwnTable $table): Response
    {
        return $this->render('tables/show.html.twig', $this->view($table));
    }

    /** Whether the room's camera hangs over it. */
    #[Route('/{id}/camera', name: 'table_camera', methods: ['POST'])]
    #[IsCsrfTokenValid('table')]
    public function camera(Request $request, OwnTable $table, EntityManagerInterface $manager): Response
    {
        $table->hangCamera($request->request->getBoolean('here'));
        $manager->flush();

        return $this->redirectToRoute('table', ['id' => $table->getId()], Response::HTTP_SEE_OTHER);
    }

    /** Name, notes and measures by hand. */
    #[Route('/{id}', name: 'table_change', methods: ['POST'])]
    #[IsCsrfTokenValid('table')]
    public function change(Request $request, OwnTable $table): Response
    {
        $back = $this->generateUrl('table', ['id' => $table->getId()]);
        ChangedElsewhere::unless($request, $table->getVersion(), TableInput::fields($table->getFile()), $back);
        try {
            $this->shelf->change($table, TableInput::file($request->request, $table->getFile()));
        } catch (CoreError|Refused $e) {
            return $this->render(
                'tables/show.html.twig',
                ['error' => $this->words->error($e).' Nothing was changed.'] + $this->view($table),
                new Response(status: Response::HTTP_UNPROCESSABLE_ENTITY),
            );
        }

        return $this->redirectToRoute('table', ['id' => $table->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/{id}/tests/{test}', name: 'table_test', requirements: self::TEST, methods: ['GET'])]
    public function test(Request $request, OwnTable $table, string $test): Response
    {
        return $this->render('tables/test.html.twig', $this->entry($request, $table, $this->named($test)));
    }

    #[Route('/{id}/tests/{test}', name: 'table_record', requirements: self::TEST, methods: ['POST'])]
    #[IsCsrfTokenValid('table')]
    public function record(Request $request, OwnTable $table, string $test): Response
    {
        $usual = $this->named($test);
        try {
            $this->shelf->record($table, (new TestEntry($usual, $table->getEquipment()))->read($request->request));
        } catch (Refused $e) {
            return $this->render(
                'tables/test.html.twig',
                ['error' => $this->words->error($e), 'typed' => $request->request->all()] + $this->entry($request, $table, $usual),
                new Response(status: Response::HTTP_UNPROCESSABLE_ENTITY),
            );
        }

        return $this->redirectToRoute('table_test', ['id' => $table->getId(), 'test' => $test], Response::HTTP_SEE_OTHER);
    }

    /** Every test on a card, four on a page. */
    #[Route('/{id}/cards', name: 'table_cards', methods: ['GET'])]
    public function cards(Request $request, OwnTable $table): Response
    {
        return $this->render('tables/cards.html.twig', [
            'table' => $table,
            'cards' => array_map(fn (UsualTests $test): array => $this->entry($request, $table, $test), UsualTests::cases()),
        ]);
    }

    #[Route('/{id}/forget', name: 'table_forget', methods: ['POST'])]
    #[IsCsrfTokenValid('table')]
    public function forget(Request $request, OwnTable $table): Response
    {
        $this->shelf->forget($table, $request->request->getInt('number', -1));

        return $this->redirectToRoute('table', ['id' => $table->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/{id}/fit', name: 'table_fit', methods: ['GET'])]
    public function fit(OwnTable $table): Response
    {
        return $this->render('tables/fit.html.twig', $this->view($table));
    }

    #[Route('/{id}/fit', name: 'table_fit_ask', methods: ['POST'])]
    #[IsCsrfTokenValid('table')]
    public function ask(OwnTable $table): Response
    {
        $this->shelf->ask($table);

        return $this->redirectToRoute('table', ['id' => $table->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/{id}/take', name: 'table_take', methods: ['POST'])]
    #[IsCsrfTokenValid('table')]
    public function take(OwnTable $table): Response
    {
        $this->shelf->take($table);
        $this->addFlash('notice', 'The table is now as its tests found it. Sheets keep what they were planned on until they take it over.');

        return $this->redirectToRoute('table', ['id' => $table->getId()], Response::HTTP_SEE_OTHER);
    }

    /** Drills are played here from now on, or on the usual table again. */
    #[Route('/{id}/usual', name: 'table_usual', methods: ['POST'])]
    #[IsCsrfTokenValid('table')]
    public function usual(Request $request, OwnTable $table): Response
    {
        $this->shelf->playOn($table, $request->request->getBoolean('here'));

        return $this->redirectToRoute('table', ['id' => $table->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/{id}/delete', name: 'table_delete', methods: ['POST'])]
    #[IsCsrfTokenValid('table')]
    public function delete(OwnTable $table, Words $words): Response
    {
        $this->shelf->delete($table);
        $this->addFlash('notice', $words->said('done.tableDeleted', ['table' => $table->getName()]));

        return $this->redirectToRoute('tables', [], Response::HTTP_SEE_OTHER);
    }

    /** The profile as a file, or what was measured. */
    #[Route('/{id}/export', name: 'table_export', methods: ['GET'])]
    public function export(Request $request, OwnTable $table): Response
    {
        return 'tests' === $request->query->getString('what')
            ? Download::of($table->getTestsFile()."\n", 'table.table-tests.json')
            : Download::of($table->getFile()->write()."\n", 'table.table.json');
    }

    private function named(string $test): UsualTests
    {
        return UsualTests::tryFrom($test) ?? throw $this->createNotFoundException('There is no such test.');
    }

    /** @return array<string, mixed> */
    private function entry(Request $request, OwnTable $table, UsualTests $test): array
    {
        $entry = new TestEntry($test, $table->getEquipment());

        return [
            'table' => $table,
            'entry' => $entry,
            'drawing' => new TestDrawing($entry, HeldScreen::isUpright($request)),
            'done' => \count(array_filter($table->getTests(), static fn (array $one): bool => ($one['name'] ?? null) === $test->value)),
            'tests' => UsualTests::cases(),
            'error' => null,
            'typed' => [],
        ];
    }

    /** @return array<string, mixed> */
    private function view(OwnTable $table): array
    {
        return [
            'table' => $table,
            'view' => new TableView($table, $this->words),
            'drawing' => new TableDrawing(new Rack(Game::NineBall, Layout::empty(), $table->getEquipment())),
            'error' => null,
            'has_camera' => $this->camera->isThere(),
        ];
    }
}
