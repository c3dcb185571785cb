<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Lesson;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Repository\Groups;
use ZigLane\App\Repository\Lessons;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\State\ChangedElsewhere;
use ZigLane\App\Teaching\LessonDesk;
use ZigLane\App\Teaching\LessonView;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Format\LessonFile;
use ZigLane\Core\Teaching\ItemKind;
use ZigLane\Core\Teaching\Question;

/** Lessons: written by a coach, kept in his library, copied, exported, taken in, and set to pupils. */
#[Route('/lessons')]
final class LessonController extends AbstractController
{
    private const SHEETS = 100;

    public function __construct(private readonly Lessons $lessons, private readonly LessonDesk $desk)
    {
    }

    #[Route('', name: 'lessons', methods: ['GET'])]
    public function list(Request $request, #[CurrentUser] Account $account): Response
    {
        $deleted = $this->lessons->deletedOrNot($account, $request->query->getString('deleted'));

        return $this->render('lessons/list.html.twig', [
            'lessons' => $this->lessons->all($account), 'deleted' => true === $deleted?->isDeleted() ? $deleted : null,
        ]);
    }

    #[Route('', name: 'lesson_make', methods: ['POST'])]
    #[IsCsrfTokenValid('lesson')]
    public function make(Request $request, #[CurrentUser] Account $account): Response
    {
        return $this->to($this->desk->keep($account, new LessonFile(LessonDesk::name($request->request->getString('name')))));
    }

    #[Route('/import', name: 'lesson_import', methods: ['POST'])]
    #[IsCsrfTokenValid('lesson')]
    public function import(Request $request, #[CurrentUser] Account $account): Response
    {
        return $this->to($this->desk->keep($account, LessonFile::parse(Upload::content($request, LessonFile::MAX_BYTES, 'lessonUpload'))));
    }

    #[Route('/{id}', name: 'lesson', methods: ['GET'])]
    public function show(
        Request $request, string $id, #[CurrentUser] Account $account, LessonView $view, DrillShelf $shelf,
        RackSheetRepository $sheets, Groups $groups,
    ): Response {
        $lesson = $this->own($account, $id);

        return $this->render('lessons/show.html.twig', [
            'lesson' => $lesson,
            'items' => $view->of($lesson->getFile(), HeldScreen::isUpright($request), $account->getTipUnit()),
            'drills' => $shelf->all($account),
            'sheets' => $sheets->ofOwner($account, self::SHEETS),
            'questions' => Question::cases(),
            'pupils' => $groups->pupilsOf($account),
            'is_editing' => $request->query->getBoolean('edit'),
        ]);
    }

    /** Its drills as set-up cards, its positions and runs with their spots: for paper. */
    #[Route('/{id}/cards', name: 'lesson_cards', methods: ['GET'])]
    public function cards(string $id, #[CurrentUser] Account $account, LessonView $view): Response
    {
        $lesson = $this->own($account, $id);

        return $this->render('lessons/cards.html.twig', [
            'lesson' => $lesson, 'items' => $view->of($lesson->getFile(), false, $account->getTipUnit(), $account->getEquipment()),
        ]);
    }

    #[Route('/{id}/name', name: 'lesson_rename', methods: ['POST'])]
    #[IsCsrfTokenValid('lesson')]
    public function rename(Request $request, string $id, #[CurrentUser] Account $account): Response
    {
        $lesson = $this->own($account, $id);
        ChangedElsewhere::unless($request, $lesson->getVersion(), ['name' => $lesson->getName()], $this->editing($lesson));
        $this->desk->change($lesson, $lesson->getFile()->withName(LessonDesk::name($request->request->getString('name'))));

        return $this->to($lesson, true);
    }

    #[Route('/{id}/add', name: 'lesson_add', methods: ['POST'])]
    #[IsCsrfTokenValid('lesson')]
    public function add(Request $request, string $id, #[CurrentUser] Account $account): Response
    {
        $lesson = $this->own($account, $id);
        $post = $request->request;
        $kind = ItemKind::tryFrom($post->getString('kind')) ?? throw Refused::because('noItem');
        $this->desk->add(
            $lesson, $kind, $post->getString('text'), $post->getString(ItemKind::Drill === $kind ? 'drill' : 'sheet'),
            Question::tryFrom($post->getString('question')),
        );

        return $this->to($lesson, true);
    }

    #[Route('/{id}/edit', name: 'lesson_edit', methods: ['POST'])]
    #[IsCsrfTokenValid('lesson')]
    public function edit(Request $request, string $id, #[CurrentUser] Account $account): Response
    {
        $lesson = $this->own($account, $id);
        [$file, $item] = [$lesson->getFile(), $request->request->getString('item')];
        $place = $file->place($item);
        // Words can be put over others. A part that was moved or taken out elsewhere is left as it is there.
        $canKeep = null !== $place && 'text' === $request->request->getString('what');
        $now = ['text' => null === $place ? '' : $file->items[$place]->text];
        ChangedElsewhere::unless($request, $lesson->getVersion(), $now, $this->editing($lesson), $canKeep);
        $this->desk->edit(
            $lesson,
            $item,
            $request->request->getString('what'),
            $request->request->getString('text'),
        );

        return $this->to($lesson, true);
    }

    #[Route('/{id}/copy', name: 'lesson_copy', methods: ['POST'])]
    #[IsCsrfTokenValid('lesson')]
    public function copy(string $id, #[CurrentUser] Account $account): Response
    {
        $file = $this->own($account, $id)->getFile();

        return $this->to($this->desk->keep($account, $file->withName(mb_substr($file->name, 0, LessonFile::MAX_NAME - 5).' copy')), true);
    }

    #[Route('/{id}/export', name: 'lesson_export', methods: ['GET'])]
    public function export(string $id, #[CurrentUser] Account $account): Response
    {
        return Download::of($this->own($account, $id)->getFile()->write()."\n", 'lesson.lesson.json');
    }

    #[Route('/{id}/delete', name: 'lesson_delete', methods: ['POST'])]
    #[IsCsrfTokenValid('lesson')]
    public function delete(string $id, #[CurrentUser] Account $account): Response
    {
        $this->desk->delete($this->own($account, $id), true);

        return $this->redirectToRoute('lessons', ['deleted' => $id], Response::HTTP_SEE_OTHER);
    }

    #[Route('/{id}/restore', name: 'lesson_restore', methods: ['POST'])]
    #[IsCsrfTokenValid('lesson')]
    public function restore(string $id, #[CurrentUser] Account $account): Response
    {
        $this->desk->delete($this->lessons->deletedOrNot($account, $id) ?? throw $this->createNotFoundException(), false);

        return $this->redirectToRoute('lessons', [], Response::HTTP_SEE_OTHER);
    }

    /** Set to pupils by a day: to each of those chosen, as it is now. */
    #[Route('/{id}/set', name: 'lesson_set', methods: ['POST'])]
    #[IsCsrfTokenValid('lesson')]
    public function set(Request $request, string $id, #[CurrentUser] Account $account, Groups $groups): Response
    {
        $lesson = $this->own($account, $id);
        $due = $request->request->getString('due');
        $dueOn = '' === $due ? null : \DateTimeImmutable::createFromFormat('!Y-m-d', $due);
        if (false === $dueOn) {
            throw Refused::because('noDay');
        }
        $chosen = array_filter($request->request->all('pupils'), is_string(...));
        if ([] === $chosen) {
            throw Refused::because('noPupil');
        }
        foreach (array_unique($chosen) as $member) {
            $membership = $groups->membershipFor($account, $member) ?? throw Refused::because('notConnected');
            $this->desk->set($lesson, $membership, $dueOn, $request->request->getString('note'));
        }
        $this->addFlash('notice', 'It is set.');

        return $this->to($lesson);
    }

    private function own(Account $account, string $id): Lesson
    {
        return $this->lessons->ownedBy($account, $id) ?? throw $this->createNotFoundException();
    }

    private function editing(Lesson $lesson): string
    {
        return $this->generateUrl('lesson', ['id' => $lesson->getId(), 'edit' => 1]);
    }

    private function to(Lesson $lesson, bool $isEditing = false): Response
    {
        return $this->redirectToRoute('lesson', ['id' => $lesson->getId()] + ($isEditing ? ['edit' => 1] : []), Response::HTTP_SEE_OTHER);
    }
}
