<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Answer;
use ZigLane\App\Entity\Assignment;
use ZigLane\App\Message\ScoreAnswer;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Practice\PracticeEditor;
use ZigLane\App\Practice\ShelvedDrill;
use ZigLane\App\Repository\Assignments;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\App\Sheet\SpotText;
use ZigLane\App\Teaching\AssignmentView;
use ZigLane\App\Teaching\LessonDesk;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Format\LessonItem;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Teaching\ItemKind;
use ZigLane\Core\Teaching\Prediction;

/** What was set: the pupil does it here, and his coach sees how it went. */
#[Route('/set/{id}')]
final class AssignmentController extends AbstractController
{
    public function __construct(
        private readonly Assignments $assignments,
        private readonly LessonDesk $desk,
        private readonly EntityManagerInterface $manager,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'assignment', methods: ['GET'])]
    public function show(Request $request, string $id, #[CurrentUser] Account $account, AssignmentView $view): Response
    {
        $assignment = $this->seen($account, $id);
        $isPupil = $assignment->getPupil() === $account;
        $items = $view->of(
            $assignment, HeldScreen::isUpright($request), $account->getTipUnit(), $isPupil || $assignment->getMembership()->sees('scores'),
        );
        $toDo = array_filter($items, static fn (array $one): bool => null !== $one['done']);

        return $this->render('lessons/assignment.html.twig', [
            'assignment' => $assignment,
            'is_pupil' => $isPupil,
            'items' => $items,
            'done' => \count(array_filter($toDo, static fn (array $one): bool => true === $one['done'])),
            'of' => \count($toDo),
            'is_late' => $assignment->isLate($this->clock->now()),
            'upright' => HeldScreen::isUpright($request),
            'pockets' => Pocket::cases(),
        ]);
    }

    /** Begins one of its drills, scored. A drill that is on none of the pupil's shelves is put there. */
    #[Route('/drill', name: 'assignment_drill', methods: ['POST'])]
    #[IsCsrfTokenValid('assignment')]
    public function drill(
        Request $request,
        string $id,
        #[CurrentUser] Account $account,
        DrillShelf $shelf,
        PracticeEditor $editor,
    ): Response {
        $item = $this->item($this->own($account, $id), $request, ItemKind::Drill);
        $file = $item->drill ?? throw Refused::because('noItem');
        $shelved = null;
        foreach ($shelf->all($account) as $one) {
            $shelved = null === $shelved && $one->file->hash() === $file->hash() ? $one : $shelved;
        }
        $shelved ??= new ShelvedDrill((string) ($kept = $shelf->keep($account, $file))->getId(), $file, $kept);
        $session = $editor->begin($account, Uuid::v7(), $shelved, $item->level, true);

        return $this->redirectToRoute('practice', ['id' => $session->getId()], Response::HTTP_SEE_OTHER);
    }

    /** What the pupil says of a position, once; it is scored by a worker. */
    #[Route('/answer', name: 'assignment_answer', methods: ['POST'])]
    #[IsCsrfTokenValid('assignment')]
    public function answer(Request $request, string $id, #[CurrentUser] Account $account, MessageBusInterface $bus): Response
    {
        $assignment = $this->own($account, $id);
        $item = $this->item($assignment, $request, ItemKind::Position);
        $rack = $item->rack->rack ?? throw Refused::because('noItem');
        $post = $request->request;
        $ball = Ball::tryFrom($post->getInt('ball', -1)) ?? throw Refused::because('noAnswer');
        $pocket = Pocket::tryFrom($post->getString('pocket')) ?? throw Refused::because('noAnswer');
        $typed = trim($post->getString('spot'));
        $spot = '' === $typed ? null : SpotText::spot($typed, $rack->equipment->table);
        $order = [];
        foreach (preg_split('/[\s,;]+/', trim($post->getString('order')), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $label) {
            $order[] = 1 === preg_match('/^\d{1,2}$/D', $label) ? Ball::tryFrom((int) $label) : null;
        }
        $said = new Prediction($ball, $pocket, $spot, array_values(array_filter($order)));
        if (!$said->isOf($rack) || \count($said->order) !== \count($order) || (null === $spot && true === $item->question?->asksSpot())) {
            throw Refused::because('noAnswer');
        }
        $answer = new Answer($assignment, $post->getInt('item'), $said->toArray(), $this->clock->now());
        try {
            $this->manager->wrapInTransaction(function () use ($answer, $bus, $account): void {
                $this->manager->persist($answer);
                $this->manager->flush();
                $bus->dispatch(new ScoreAnswer((string) $answer->getId(), $account->party()));
            });
        } catch (UniqueConstraintViolationException) {
            throw Refused::because('answered');
        }

        return $this->to($assignment, $post->getInt('item'));
    }

    /** A position of it, or a run's, as a sheet of the pupil's own; a position once he has said what he would do. */
    #[Route('/sheet', name: 'assignment_sheet', methods: ['POST'])]
    #[IsCsrfTokenValid('assignment')]
    public function sheet(Request $request, string $id, #[CurrentUser] Account $account, SheetEditor $editor): Response
    {
        $assignment = $this->own($account, $id);
        $number = $request->request->getInt('item', -1);
        $item = $assignment->getLesson()->items[$number] ?? throw Refused::because('noItem');
        $rack = $item->rack->rack ?? $item->plan?->best()->placed() ?? throw Refused::because('noItem');
        if (null !== $item->rack && !isset($this->assignments->answers($assignment)[$number])) {
            throw Refused::because('answerFirst');
        }
        $sheet = $editor->create($account, mb_substr($assignment->getName(), 0, RackFile::MAX_NAME), $rack, Uuid::v4());

        return $this->redirectToRoute('sheet_layout', ['id' => $sheet->getId()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/done', name: 'assignment_done', methods: ['POST'])]
    #[IsCsrfTokenValid('assignment')]
    public function done(Request $request, string $id, #[CurrentUser] Account $account): Response
    {
        $assignment = $this->own($account, $id);
        $this->desk->finish($assignment, $request->request->getBoolean('done', true));

        return $this->to($assignment);
    }

    /** The coach takes it back. */
    #[Route('/withdraw', name: 'assignment_withdraw', methods: ['POST'])]
    #[IsCsrfTokenValid('assignment')]
    public function withdraw(string $id, #[CurrentUser] Account $account): Response
    {
        $assignment = $this->seen($account, $id);
        if ($assignment->getCoach() !== $account) {
            throw $this->createNotFoundException();
        }
        $this->desk->withdraw($assignment);

        return $this->redirectToRoute('member', ['id' => $assignment->getMembership()->getId()], Response::HTTP_SEE_OTHER);
    }

    private function seen(Account $account, string $id): Assignment
    {
        return $this->assignments->for($account, $id) ?? throw $this->createNotFoundException();
    }

    private function own(Account $account, string $id): Assignment
    {
        $assignment = $this->seen($account, $id);

        return $assignment->getPupil() === $account ? $assignment : throw $this->createNotFoundException();
    }

    private function item(Assignment $assignment, Request $request, ItemKind $kind): LessonItem
    {
        $item = $assignment->getLesson()->items[$request->request->getInt('item', -1)] ?? null;

        return null !== $item && $kind === $item->kind ? $item : throw Refused::because('noItem');
    }

    private function to(Assignment $assignment, ?int $item = null): Response
    {
        return $this->redirect(
            $this->generateUrl(
                'assignment',
                ['id' => $assignment->getId()],
            ).(null === $item ? '' : "#item-$item"), Response::HTTP_SEE_OTHER,
        );
    }
}
