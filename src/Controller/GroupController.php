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
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Membership;
use ZigLane\App\Entity\TeachingGroup;
use ZigLane\App\Repository\Groups;
use ZigLane\App\Repository\Lessons;
use ZigLane\App\Teaching\GroupDesk;
use ZigLane\App\Teaching\PupilView;
use ZigLane\App\Words\Refused;

/** Groups: the coach's, with their pupils at a glance; the pupil's, with what he lets be seen. */
final class GroupController extends AbstractController
{
    public function __construct(
        private readonly Groups $groups,
        private readonly GroupDesk $desk,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('/groups', name: 'groups', methods: ['GET'])]
    public function list(#[CurrentUser] Account $account, PupilView $pupils): Response
    {
        $groups = [];
        foreach ($this->groups->of($account) as $group) {
            $groups[] = ['group' => $group, 'pupils' => \count($this->groups->pupils($group))];
        }

        return $this->render('groups/list.html.twig', [
            'groups' => $groups,
            'joined' => $this->groups->joined($account),
            'sights' => Membership::SIGHTS,
            'week' => [] === $groups ? [] : $pupils->week($account),
        ]);
    }

    #[Route('/groups', name: 'group_make', methods: ['POST'])]
    #[IsCsrfTokenValid('group')]
    public function make(Request $request, #[CurrentUser] Account $account): Response
    {
        return $this->to($this->desk->make($account, $request->request->getString('name')));
    }

    #[Route('/groups/{id}', name: 'group', methods: ['GET'])]
    public function show(string $id, #[CurrentUser] Account $account, PupilView $pupils, Lessons $lessons): Response
    {
        $group = $this->own($account, $id);

        return $this->render('groups/show.html.twig', [
            'group' => $group,
            'pupils' => array_map($pupils->glance(...), $this->groups->pupils($group)),
            'invitations' => $this->groups->invitations($group, $this->clock->now()),
            'lessons' => $lessons->all($account),
        ]);
    }

    #[Route('/groups/{id}/code', name: 'group_code', methods: ['POST'])]
    #[IsCsrfTokenValid('group')]
    public function code(string $id, #[CurrentUser] Account $account): Response
    {
        $group = $this->own($account, $id);
        $this->desk->changeCode($group);

        return $this->to($group);
    }

    #[Route('/groups/{id}/invite', name: 'group_invite', methods: ['POST'])]
    #[IsCsrfTokenValid('group')]
    public function invite(
        Request $request, string $id, #[CurrentUser] Account $account, RateLimiterFactoryInterface $letterLimiter,
    ): Response {
        $group = $this->own($account, $id);
        if ($account->isDemo()) {
            throw Refused::because('demo');
        }
        if (!$letterLimiter->create((string) $account->getId())->consume()->isAccepted()) {
            throw new TooManyRequestsHttpException(3600, 'Too many letters. Give the code instead, or go on in an hour.');
        }
        $this->desk->invite($group, $request->request->getString('email'));
        $this->addFlash('notice', 'The letter is on its way. It is listed below whether it has been sent.');

        return $this->to($group);
    }

    #[Route('/groups/{id}/close', name: 'group_close', methods: ['POST'])]
    #[IsCsrfTokenValid('group')]
    public function close(string $id, #[CurrentUser] Account $account): Response
    {
        $this->desk->close($this->own($account, $id));

        return $this->redirectToRoute('groups', [], Response::HTTP_SEE_OTHER);
    }

    /** Whoever has a code says what the coach sees, and is in. */
    #[Route('/join', name: 'join', methods: ['GET'])]
    public function askCode(Request $request): Response
    {
        return $this->render('groups/join.html.twig', [
            'code' => mb_substr(mb_scrub($request->query->getString('code')), 0, 16), 'invitation' => null, 'sights' => Membership::SIGHTS,
        ]);
    }

    #[Route('/join', name: 'join_by_code', methods: ['POST'])]
    #[IsCsrfTokenValid('join')]
    public function join(Request $request, #[CurrentUser] Account $account, RateLimiterFactoryInterface $joinLimiter): Response
    {
        // Codes cannot be tried through.
        if (!$joinLimiter->create((string) $account->getId())->consume()->isAccepted()) {
            throw new TooManyRequestsHttpException(3600, 'Too many codes were tried. Come back in an hour.');
        }
        $group = $this->groups->byCode(
            mb_substr(mb_scrub($request->request->getString('code')), 0, 16),
        ) ?? throw Refused::because('noSuchGroup');
        $this->desk->join($group, $account, MemberController::sees($request));

        return $this->redirectToRoute('groups', [], Response::HTTP_SEE_OTHER);
    }

    #[Route('/join/{token}', name: 'join_invited', methods: ['GET'])]
    public function askInvited(string $token): Response
    {
        $invitation = $this->groups->invitation($token);
        if (true !== $invitation?->isOpen($this->clock->now())) {
            return $this->render('groups/no_invitation.html.twig', [], new Response(status: Response::HTTP_NOT_FOUND));
        }

        return $this->render('groups/join.html.twig', ['code' => '', 'invitation' => $invitation, 'sights' => Membership::SIGHTS]);
    }

    #[Route('/join/{token}', name: 'join_by_letter', methods: ['POST'])]
    #[IsCsrfTokenValid('join')]
    public function joinInvited(Request $request, string $token, #[CurrentUser] Account $account): Response
    {
        $invitation = $this->groups->invitation($token);
        if (true !== $invitation?->isOpen($this->clock->now())) {
            return $this->render('groups/no_invitation.html.twig', [], new Response(status: Response::HTTP_NOT_FOUND));
        }
        $this->desk->join($invitation->getGroup(), $account, MemberController::sees($request), $invitation);

        return $this->redirectToRoute('groups', [], Response::HTTP_SEE_OTHER);
    }

    private function own(Account $account, string $id): TeachingGroup
    {
        return $this->groups->ownedBy($account, $id) ?? throw $this->createNotFoundException();
    }

    private function to(TeachingGroup $group): Response
    {
        return $this->redirectToRoute('group', ['id' => $group->getId()], Response::HTTP_SEE_OTHER);
    }
}
