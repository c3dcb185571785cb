<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Psr\Clock\ClockInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Drawing\MarksDrawing;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Comment;
use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Entity\ThreadKind;
use ZigLane\App\Repository\Comments;
use ZigLane\App\Sharing\ThreadDesk;

/** A thread of comments: on the sheet, the rack or the practice that it is about, and on a page of its own. */
#[Route('/threads/{kind}/{subject}')]
final class ThreadController extends AbstractController
{
    private const SHOWN = 100;

    public function __construct(
        private readonly Comments $comments,
        private readonly ThreadDesk $desk,
        private readonly ClockInterface $clock,
    ) {
    }

    /** The latest of one place, and what was drawn to them. */
    #[Route('', name: 'thread', methods: ['GET'])]
    public function show(Request $request, string $kind, string $subject, #[CurrentUser] Account $account): Response
    {
        [$thread, $thing, $mayWrite] = $this->seen($account, $kind, $subject);

        return $this->part($request, $account, $thread, $thing, $mayWrite);
    }

    #[Route('/page', name: 'thread_page', methods: ['GET'])]
    public function page(string $kind, string $subject, #[CurrentUser] Account $account): Response
    {
        [$thread, $thing] = $this->seen($account, $kind, $subject);
        $isOwner = $thing->getOwner() === $account;

        return match (true) {
            $thing instanceof RackSheet && $isOwner => $this->redirectToRoute('sheet_runout', ['id' => $subject, '_fragment' => 'thread']),
            $thing instanceof ShotRack && $isOwner => $this->redirectToRoute('rack_review', ['id' => $subject, '_fragment' => 'thread']),
            default => $this->render('comments/page.html.twig', ['thread' => $thread, 'subject' => $subject, 'thing' => $thing]),
        };
    }

    #[Route('', name: 'thread_write', methods: ['POST'])]
    #[IsCsrfTokenValid('thread')]
    public function write(
        Request $request, string $kind, string $subject, #[CurrentUser] Account $account, RateLimiterFactoryInterface $commentLimiter,
    ): Response {
        [$thread, $thing, $mayWrite] = $this->seen($account, $kind, $subject);
        if (!$mayWrite) {
            throw $this->createNotFoundException();
        }
        if (!$commentLimiter->create((string) $account->getId())->consume()->isAccepted()) {
            throw new TooManyRequestsHttpException(60, 'Too many comments at once. Go on in a minute.');
        }
        $marks = json_decode($request->request->getString('marks'), true, 6);
        $this->desk->write(
            $account, $thread, Uuid::fromString($subject), $request->request->getInt('place'), $request->request->getString('text'),
            \is_array($marks) ? $marks : [],
        );

        return $this->part($request, $account, $thread, $thing, true);
    }

    /** One's own, or any on one's own thing. */
    #[Route('/{id}/remove', name: 'thread_remove', methods: ['POST'])]
    #[IsCsrfTokenValid('thread')]
    public function remove(Request $request, string $kind, string $subject, string $id, #[CurrentUser] Account $account): Response
    {
        [$thread, $thing, $mayWrite] = $this->seen($account, $kind, $subject);
        $comment = Uuid::isValid($id) ? $this->comments->find(Uuid::fromString($id)) : null;
        $isHis = $comment?->getAuthor() === $account || $thing->getOwner() === $account;
        if (null === $comment || !$isHis || $comment->getThread() !== $thread || (string) $comment->getSubject() !== $subject) {
            throw $this->createNotFoundException();
        }
        $this->desk->remove($comment);

        return $this->part($request, $account, $thread, $thing, $mayWrite);
    }

    private function part(
        Request $request,
        Account $account,
        ThreadKind $thread,
        RackSheet|ShotRack|DrillSession $thing,
        bool $mayWrite,
    ): Response {
        $place = max(0, $request->isMethod('POST') ? $request->request->getInt('place') : $request->query->getInt('place'));
        $id = $thing->getId();
        $seen = $this->comments->seen($account, $id);
        $shown = $this->comments->latest($thread, $id, self::SHOWN, $place);
        $this->comments->see($account, $id, $this->clock->now());
        $equipment = match (true) {
            $thing instanceof RackSheet => $thing->getRack()->equipment,
            $thing instanceof ShotRack => $thing->getNow()->equipment,
            default => $account->getEquipment(),
        };

        return $this->render('comments/thread.html.twig', [
            'thread' => $thread, 'subject' => (string) $id, 'place' => $place, 'comments' => $shown, 'may_write' => $mayWrite,
            'is_owner' => $thing->getOwner() === $account, 'seen' => $seen, 'me' => $account,
            'length' => $equipment->table->length, 'upright' => HeldScreen::isUpright($request),
            'places' => $this->comments->places($thread, $id), 'more' => \count($shown) >= self::SHOWN,
            'marks' => new MarksDrawing(
                array_merge(...array_map(static fn (Comment $comment): array => $comment->getMarks(), $shown)),
                $equipment->table, HeldScreen::isUpright($request),
            ),
        ]);
    }

    /** @return array{ThreadKind, RackSheet|ShotRack|DrillSession, bool} */
    private function seen(Account $account, string $kind, string $subject): array
    {
        $thread = ThreadKind::tryFrom($kind);
        $access = null === $thread ? null : $this->desk->access($account, $thread, $subject);
        if (null === $thread || null === $access) {
            throw $this->createNotFoundException();
        }

        return [$thread, ...$access];
    }
}
