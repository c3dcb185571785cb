<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Membership;
use ZigLane\App\Entity\ShareKind;
use ZigLane\App\Repository\Groups;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Repository\ShotLog;
use ZigLane\App\Sharing\FollowDesk;
use ZigLane\App\Sharing\ShareDesk;
use ZigLane\App\Sharing\Sights;
use ZigLane\App\Teaching\GroupDesk;
use ZigLane\App\Teaching\PupilView;

/** A pupil in a group: what he lets be seen, and what his coach sees of it. */
#[Route('/members')]
final class MemberController extends AbstractController
{
    public function __construct(private readonly Groups $groups, private readonly GroupDesk $desk)
    {
    }

    #[Route('/{id}/sees', name: 'member_sees', methods: ['POST'])]
    #[IsCsrfTokenValid('group')]
    public function letSee(Request $request, string $id, #[CurrentUser] Account $account): Response
    {
        $this->desk->letSee($this->ofPupil($account, $id), self::sees($request));

        return $this->redirectToRoute('groups', [], Response::HTTP_SEE_OTHER);
    }

    #[Route('/{id}/leave', name: 'member_leave', methods: ['POST'])]
    #[IsCsrfTokenValid('group')]
    public function leave(string $id, #[CurrentUser] Account $account): Response
    {
        $this->desk->leave($this->ofPupil($account, $id));

        return $this->redirectToRoute('groups', [], Response::HTTP_SEE_OTHER);
    }

    /** The coach takes a pupil out of his group. */
    #[Route('/{id}/remove', name: 'member_remove', methods: ['POST'])]
    #[IsCsrfTokenValid('group')]
    public function remove(string $id, #[CurrentUser] Account $account): Response
    {
        $membership = $this->groups->membershipFor($account, $id) ?? throw $this->createNotFoundException();
        if ($membership->getGroup()->getCoach() !== $account) {
            throw $this->createNotFoundException();
        }
        $this->desk->leave($membership);

        return $this->redirectToRoute('group', ['id' => $membership->getGroup()->getId()], Response::HTTP_SEE_OTHER);
    }

    /** What the coach sees of a pupil: the same page for both of them. */
    #[Route('/{id}', name: 'member', methods: ['GET'])]
    public function member(string $id, #[CurrentUser] Account $account, PupilView $pupils): Response
    {
        $membership = $this->groups->membershipFor($account, $id) ?? throw $this->createNotFoundException();

        return $this->render('pupils/show.html.twig', [
            'membership' => $membership,
            'is_coach' => $membership->getGroup()->getCoach() === $account,
            'seen' => $pupils->whole($membership),
        ]);
    }

    /** A sheet of a pupil, where he lets it be seen. */
    #[Route('/{id}/sheets/{sheet}', name: 'member_sheet', methods: ['GET'])]
    public function sheet(
        Request $request, string $id, string $sheet, #[CurrentUser] Account $account,
        RackSheetRepository $sheets, Sights $sights, FollowDesk $follows,
    ): Response {
        $membership = $this->seeing($account, $id, 'sheets');
        $found = $sheets->ownedBy($membership->getPupil(), $sheet) ?? throw $this->createNotFoundException();

        return $this->render($request->query->getBoolean('board') ? 'look/board.html.twig' : 'look/sheet.html.twig', [
            'name' => $found->getName(), 'sheet' => $found, 'owner' => $membership->getPupil(), 'followed' => $follows->leg($found),
            'base' => $this->generateUrl('member_sheet', ['id' => $id, 'sheet' => $sheet]), 'copy_of' => null, 'has_thread' => true,
        ] + $sights->sheet(
            $found, $request->query->getInt('plan'), $request->query->getInt('leg', 1),
            HeldScreen::isUpright($request), $account->getTipUnit(),
        ));
    }

    #[Route('/{id}/sheets/{sheet}/board', name: 'member_board', methods: ['GET'])]
    public function board(
        Request $request, string $id, string $sheet, #[CurrentUser] Account $account,
        RackSheetRepository $sheets, Sights $sights, FollowDesk $follows,
    ): Response {
        $request->query->set('board', '1');

        return $this->sheet($request, $id, $sheet, $account, $sheets, $sights, $follows);
    }

    #[Route('/{id}/sheets/{sheet}/follow', name: 'member_follow', methods: ['GET'])]
    public function follow(
        string $id, string $sheet, #[CurrentUser] Account $account, RackSheetRepository $sheets, FollowDesk $follows,
    ): JsonResponse {
        $found = $sheets->ownedBy($this->seeing($account, $id, 'sheets')->getPupil(), $sheet) ?? throw $this->createNotFoundException();

        return new JsonResponse(['leg' => $follows->leg($found)]);
    }

    /** A day of a pupil's log, where he lets it be seen. */
    #[Route('/{id}/days/{day}', name: 'member_day', methods: ['GET'])]
    public function day(string $id, string $day, #[CurrentUser] Account $account, ShareDesk $desk, ShotLog $log): Response
    {
        $pupil = $this->seeing($account, $id, 'log')->getPupil();
        $thing = $desk->thing($pupil, ShareKind::Day, $day) ?? throw $this->createNotFoundException();

        return $this->render('look/day.html.twig', [
            'owner' => $pupil, 'name' => $thing->name, 'racks' => null === $thing->day ? [] : $log->racksOfDay($thing->day),
        ]);
    }

    /** Of the pupil himself or his coach, if this is let be seen. */
    private function seeing(Account $account, string $id, string $what): Membership
    {
        $membership = $this->groups->membershipFor($account, $id);

        return true === $membership?->sees($what) ? $membership : throw $this->createNotFoundException();
    }

    private function ofPupil(Account $account, string $id): Membership
    {
        $membership = $this->groups->membershipFor($account, $id);

        return null !== $membership && $membership->getPupil() === $account ? $membership : throw $this->createNotFoundException();
    }

    /**
     * What a form lets the coach see.
     *
     * @internal
     *
     * @return array<string, bool>
     */
    public static function sees(Request $request): array
    {
        $chosen = $request->request->all('sees');

        return array_combine(
            array_keys(Membership::SIGHTS),
            array_map(static fn (string $what): bool => \in_array($what, $chosen, true), array_keys(Membership::SIGHTS)),
        );
    }
}
