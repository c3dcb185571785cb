<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Psr\Clock\ClockInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use Symfony\Component\String\Slugger\SluggerInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Drawing\TableDrawing;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Form\NewSheet;
use ZigLane\App\Form\NewSheetType;
use ZigLane\App\Repository\Assignments;
use ZigLane\App\Repository\Comments;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\App\Words\Words;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\Fault;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\TableProfile;

/** The list of rack sheets, and what is done to a sheet as a whole. */
final class SheetController extends AbstractController
{
    private const MAX_FILE = 65536;
    /** Sheets on a page of the list. */
    private const SHOWN = 24;

    public function __construct(
        private readonly Assignments $assignments,
        private readonly Comments $comments,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('/', name: 'home', methods: ['GET'])]
    public function home(): Response
    {
        return $this->redirectToRoute('sheets');
    }

    #[Route('/sheets', name: 'sheets', methods: ['GET'])]
    public function list(Request $request, #[CurrentUser] Account $account, RackSheetRepository $sheets): Response
    {
        return $this->renderList(
            $account,
            $sheets,
            after: $sheets->deletedOrNot($account, $request->query->getString('after')),
            name: mb_substr(trim(mb_scrub($request->query->getString('q'))), 0, RackFile::MAX_NAME),
        );
    }

    #[Route('/sheets/new', name: 'sheet_new', methods: ['GET', 'POST'])]
    public function create(Request $request, #[CurrentUser] Account $account, SheetEditor $editor, OwnTables $tables): Response
    {
        $new = new NewSheet();
        $new->submission = (string) Uuid::v4();
        $form = $this->createForm(NewSheetType::class, $new, ['tables' => $tables->all($account)])->handleRequest($request);
        if (!$form->isSubmitted() || !$form->isValid() || null === $new->game || null === $new->size) {
            return $this->render('sheet/new.html.twig', ['form' => $form]);
        }
        $rack = new Rack($new->game, Layout::empty(), $new->table?->getEquipment() ?? new Equipment(TableProfile::ofSize($new->size)));
        $rack = $rack->withRules($account->getHouseRules()->options($new->game));
        $sheet = $editor->create(
            $account,
            trim(mb_scrub($new->name)),
            $rack,
            Uuid::isValid($new->submission) ? Uuid::fromString($new->submission) : Uuid::v4(),
            table: $new->table,
        );

        return $this->redirectToRoute('sheet_layout', ['id' => $sheet->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/sheets/import', name: 'sheet_import', methods: ['POST'])]
    #[IsCsrfTokenValid('import')]
    public function import(Request $request, #[CurrentUser] Account $account, RackSheetRepository $sheets, SheetEditor $editor): Response
    {
        $upload = $request->files->get('file');
        $submission = $request->request->getString('submission');
        try {
            if (!$upload instanceof UploadedFile || !$upload->isValid() || !Uuid::isValid($submission)) {
                throw InvalidFile::because('', new Fact('file.noUpload', ['kib' => intdiv(self::MAX_FILE, 1024)]));
            }
            $file = self::imported((string) file_get_contents($upload->getPathname(), length: PlanFile::MAX_BYTES + 1));
        } catch (InvalidFile $e) {
            return $this->renderList($account, $sheets, $e->faults);
        }
        $called = preg_replace('/(\.rack|\.plan)?\.json$/', '', mb_scrub($upload->getClientOriginalName()));
        $name = $file->name ?? mb_substr($called ?: 'Imported rack', 0, RackFile::MAX_NAME);
        $sheet = $editor->create($account, $name, $file->rack, Uuid::fromString($submission), $file->shot, $file->later);

        return $this->redirectToRoute('sheet_layout', ['id' => $sheet->getId()], Response::HTTP_SEE_OTHER);
    }

    /**
     * A rack file, or a plan file: its rack with the legs of its plan.
     *
     * @throws InvalidFile If it is neither
     */
    private static function imported(string $json): RackFile
    {
        $document = json_decode($json, true, 64);
        if (!\is_array($document) || PlanFile::FORMAT !== ($document['format'] ?? null)) {
            return RackFile::parse($json, self::MAX_FILE);
        }
        $plan = PlanFile::parse($json)->best();
        $legs = $plan->choices();

        return new RackFile($plan->placed(), null, $legs[0], \array_slice($legs, 1));
    }

    #[Route('/sheets/{id}/export', name: 'sheet_export', methods: ['GET'])]
    public function export(RackSheet $sheet, SluggerInterface $slugger): Response
    {
        $name = strtolower((string) $slugger->slug($sheet->getName())) ?: 'rack';
        $file = new RackFile($sheet->getRack(), $sheet->getName(), $sheet->getShot(), \array_slice($sheet->getLegs(), 1));

        return Download::of($file->write()."\n", $name.'.rack.json');
    }

    #[Route('/sheets/{id}/name', name: 'sheet_rename', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function rename(Request $request, RackSheet $sheet, SheetEditor $editor, Words $words): Response
    {
        $name = trim(mb_scrub($request->request->getString('name')));
        if ('' === $name || mb_strlen($name) > RackFile::MAX_NAME) {
            $this->addFlash('notice', $words->said('done.nameKept', ['most' => RackFile::MAX_NAME]));
        } else {
            $editor->rename($sheet, $name);
        }

        return $this->redirectToRoute('sheet_layout', ['id' => $sheet->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/sheets/{id}/delete', name: 'sheet_delete', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function delete(RackSheet $sheet, SheetEditor $editor): Response
    {
        $editor->delete($sheet);

        return $this->redirectToRoute('sheets', ['deleted' => $sheet->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/sheets/{id}/restore', name: 'sheet_restore', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function restore(string $id, #[CurrentUser] Account $account, RackSheetRepository $sheets, SheetEditor $editor): Response
    {
        $sheet = $sheets->deletedOrNot($account, $id) ?? throw $this->createNotFoundException();
        $editor->restore($sheet);

        return $this->redirectToRoute('sheets', [], Response::HTTP_SEE_OTHER);
    }

    /** @param list<Fault> $faults of a file that was not imported */
    private function renderList(
        Account $account,
        RackSheetRepository $sheets,
        array $faults = [],
        ?RackSheet $after = null,
        string $name = '',
    ): Response {
        // One more than is shown, which tells whether there are more.
        $found = $sheets->ofOwner($account, self::SHOWN + 1, $after, $name);
        $shown = \array_slice($found, 0, self::SHOWN);

        return $this->render('sheet/list.html.twig', [
            'sheets' => $shown,
            'tables' => array_map(static fn (RackSheet $sheet): TableDrawing => new TableDrawing($sheet->getRack()), $shown),
            'more' => \count($found) > self::SHOWN ? $shown[self::SHOWN - 1]->getId() : null,
            'after' => $after,
            'name' => $name,
            'faults' => $faults,
            'submission' => (string) Uuid::v4(),
            'due' => $this->assignments->dueBy($account),
            'now' => $this->clock->now(),
            'unread' => array_sum(array_column($this->comments->unread($account), 'count')),
        ], new Response(status: [] === $faults ? 200 : 422));
    }
}
