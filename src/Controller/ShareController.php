<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\InputBag;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\Share;
use ZigLane\App\Entity\ShareKind;
use ZigLane\App\Entity\ShareLevel;
use ZigLane\App\Repository\Comments;
use ZigLane\App\Repository\Groups;
use ZigLane\App\Repository\Shares;
use ZigLane\App\Sharing\FollowDesk;
use ZigLane\App\Sharing\ShareDesk;
use ZigLane\App\Sharing\SharedThing;
use ZigLane\App\Words\Refused;

/** Shows something to a pupil, a coach, or whoever has a link; and takes it back. */
final class ShareController extends AbstractController
{
    public function __construct(
        private readonly Shares $shares,
        private readonly ShareDesk $desk,
        private readonly Groups $groups,
    ) {
    }

    /** All that is shown, and what others show. */
    #[Route('/shares', name: 'shares', methods: ['GET'])]
    public function list(#[CurrentUser] Account $account, Comments $comments): Response
    {
        $told = fn (Share $share): array => ['share' => $share, 'thing' => $this->desk->shown($share)];

        return $this->render('share/list.html.twig', [
            'shown' => array_map($told, $this->shares->all($account)),
            'to_me' => array_values(array_filter(array_map($told, $this->shares->to($account)), static fn (array $one): bool => null !== $one['thing'])),
            'unread' => $comments->unread($account),
        ]);
    }

    /** One thing, and who sees it. */
    #[Route('/shares/of', name: 'share_of', methods: ['GET'])]
    public function of(Request $request, #[CurrentUser] Account $account): Response
    {
        return $this->page($account, $this->asked($request->query, $account));
    }

    #[Route('/shares', name: 'share_make', methods: ['POST'])]
    #[IsCsrfTokenValid('share')]
    public function share(Request $request, #[CurrentUser] Account $account): Response
    {
        $thing = $this->asked($request->request, $account);
        $to = $request->request->getString('to');
        $grantee = '' === $to ? null : $this->groups->connected($account)[$to] ?? throw Refused::because('notConnected');
        $ends = $request->request->getString('ends');
        $endsOn = '' === $ends ? null : \DateTimeImmutable::createFromFormat('!Y-m-d', $ends);
        if (false === $endsOn) {
            throw Refused::because('noDay');
        }
        $level = ShareLevel::tryFrom($request->request->getString('level')) ?? ShareLevel::Look;
        $this->desk->share($account, $thing, $grantee, $level, $endsOn);

        return $this->redirectToRoute('share_of', ['kind' => $thing->kind->value, 'subject' => $thing->subject], Response::HTTP_SEE_OTHER);
    }

    #[Route('/shares/{id}/withdraw', name: 'share_withdraw', methods: ['POST'])]
    #[IsCsrfTokenValid('share')]
    public function withdraw(string $id, #[CurrentUser] Account $account): Response
    {
        $share = $this->shares->ownedBy($account, $id) ?? throw $this->createNotFoundException();
        $this->desk->withdraw($share);

        return $this->redirectToRoute(
            'share_of', ['kind' => $share->getKind()->value, 'subject' => $share->getSubject()], Response::HTTP_SEE_OTHER,
        );
    }

    /** Shows a leg to those who look at the sheet with its owner; 0: none any more. */
    #[Route('/sheets/{id}/follow', name: 'sheet_follow', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function follow(Request $request, RackSheet $sheet, FollowDesk $follows): Response
    {
        $leg = $request->request->getInt('leg');
        $follows->show($sheet, $leg > 0 ? $leg : null);

        return new Response(status: Response::HTTP_NO_CONTENT);
    }

    private function page(Account $account, SharedThing $thing): Response
    {
        return $this->render('share/of.html.twig', [
            'thing' => $thing,
            'shares' => $this->shares->of($account, $thing->kind, $thing->subject),
            'people' => $this->groups->connected($account),
            'levels' => ShareLevel::cases(),
            'by_link' => ShareKind::Day !== $thing->kind,
        ]);
    }

    /** @param InputBag<string> $input */
    private function asked(InputBag $input, Account $account): SharedThing
    {
        $kind = ShareKind::tryFrom($input->getString('kind'));
        $thing = null === $kind ? null : $this->desk->thing($account, $kind, $input->getString('subject'));

        return $thing ?? throw $this->createNotFoundException();
    }
}
