<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\OwnDrill;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\Share;
use ZigLane\App\Entity\ShareKind;
use ZigLane\App\Repository\Shares;
use ZigLane\App\Repository\ShotLog;
use ZigLane\App\Security\Network;
use ZigLane\App\Sharing\FollowDesk;
use ZigLane\App\Sharing\ShareDesk;
use ZigLane\App\Sharing\SharedThing;
use ZigLane\App\Sharing\Sights;
use ZigLane\App\Teaching\LessonView;
use ZigLane\App\Words\TipUnit;
use ZigLane\Core\Table\Equipment;

/** What others have shown: by a link without an account, or by name. What is withdrawn, over or gone is told in one sentence. */
final class LookController extends AbstractController
{
    public function __construct(
        private readonly Shares $shares,
        private readonly ShareDesk $desk,
        private readonly Sights $sights,
        private readonly FollowDesk $follows,
        private readonly LessonView $lessons,
        private readonly ShotLog $log,
        private readonly RateLimiterFactoryInterface $lookLimiter,
    ) {
    }

    #[Route('/look/{token}', name: 'look', methods: ['GET'])]
    public function link(Request $request, string $token): Response
    {
        return $this->page($request, $this->shares->byToken($token), false);
    }

    #[Route('/look/{token}/board', name: 'look_board', methods: ['GET'])]
    public function linkBoard(Request $request, string $token): Response
    {
        return $this->page($request, $this->shares->byToken($token), true);
    }

    /** The leg that the owner shows just now, for those who look with him. */
    #[Route('/look/{token}/follow', name: 'look_follow', methods: ['GET'])]
    public function linkFollow(string $token): JsonResponse
    {
        return $this->followed($this->shares->byToken($token));
    }

    #[Route('/shared/{id}', name: 'shared', methods: ['GET'])]
    public function named(Request $request, string $id, #[CurrentUser] Account $account): Response
    {
        return $this->page($request, $this->shares->grantedTo($account, $id), false);
    }

    #[Route('/shared/{id}/board', name: 'shared_board', methods: ['GET'])]
    public function namedBoard(Request $request, string $id, #[CurrentUser] Account $account): Response
    {
        return $this->page($request, $this->shares->grantedTo($account, $id), true);
    }

    #[Route('/shared/{id}/follow', name: 'shared_follow', methods: ['GET'])]
    public function namedFollow(string $id, #[CurrentUser] Account $account): JsonResponse
    {
        return $this->followed($this->shares->grantedTo($account, $id));
    }

    /** A copy of one's own, where that was allowed. */
    #[Route('/shared/{id}/copy', name: 'shared_copy', methods: ['POST'])]
    #[IsCsrfTokenValid('share')]
    public function copy(string $id, #[CurrentUser] Account $account): Response
    {
        $share = $this->shares->grantedTo($account, $id);
        $thing = null !== $share && $share->getLevel()->mayCopy() ? $this->desk->shown($share) : null;
        if (null === $thing) {
            throw $this->createNotFoundException();
        }
        $copy = $this->desk->copy($account, $thing);

        return match (true) {
            $copy instanceof RackSheet => $this->redirectToRoute('sheet_layout', ['id' => $copy->getId()], Response::HTTP_SEE_OTHER),
            $copy instanceof OwnDrill => $this->redirectToRoute('drill', ['key' => $copy->getId()], Response::HTTP_SEE_OTHER),
            default => $this->redirectToRoute('lesson', ['id' => $copy->getId()], Response::HTTP_SEE_OTHER),
        };
    }

    private function page(Request $request, ?Share $share, bool $isBoard): Response
    {
        $thing = null === $share ? null : $this->desk->shown($share);
        if (!$this->getUser() instanceof Account && !$this->lookLimiter->create(Network::of($request))->consume()->isAccepted()) {
            throw new TooManyRequestsHttpException(60, 'Too many looks at once from here. Go on in a minute.');
        }
        if (null === $share || null === $thing) {
            // Never that there was something, or whose.
            return $this->render('look/gone.html.twig', [], new Response(status: Response::HTTP_NOT_FOUND));
        }
        $response = match ($thing->kind) {
            ShareKind::Sheet, ShareKind::Plan => $this->sheet($request, $share, $thing, $isBoard),
            ShareKind::Drill, ShareKind::Card => $this->drill($request, $share, $thing),
            ShareKind::Lesson => $this->render('look/lesson.html.twig', [
                'share' => $share, 'name' => $thing->name,
                'lesson' => $this->lessons->of($thing->lesson?->getFile(), HeldScreen::isUpright($request), $this->tips()),
            ]),
            ShareKind::Day => $this->render(
                'look/day.html.twig',
                [
                    'owner' => $share->getOwner(),
                    'name' => $thing->name,
                    'racks' => null === $thing->day ? [] : $this->log->racksOfDay($thing->day),
                ],
            ),
        };
        $response->headers->set('X-Robots-Tag', 'noindex, nofollow');
        // The address is the key: it is told to no other site.
        $response->headers->set('Referrer-Policy', 'no-referrer');

        return $response;
    }

    private function sheet(Request $request, Share $share, SharedThing $thing, bool $isBoard): Response
    {
        $sheet = $thing->sheet;
        \assert($sheet instanceof RackSheet);
        $isUpright = HeldScreen::isUpright($request);
        $view = ShareKind::Plan === $thing->kind
            ? $this->sights->sheet($sheet, $request->query->getInt('plan'), $request->query->getInt('leg', 1), $isUpright, $this->tips())
            : $this->sights->layout($sheet->getRack(), $isUpright);

        return $this->render($isBoard ? 'look/board.html.twig' : 'look/sheet.html.twig', [
            'name' => $thing->name, 'sheet' => $sheet, 'owner' => $share->getOwner(), 'followed' => $this->follows->leg($sheet),
            'base' => null === $share->getToken()
                ? $this->generateUrl('shared', ['id' => $share->getId()])
                : $this->generateUrl('look', ['token' => $share->getToken()]),
            'copy_of' => null !== $share->getGrantee() && $share->getLevel()->mayCopy() ? $share->getId() : null,
            'has_thread' => null !== $share->getGrantee(),
        ] + $view);
    }

    private function drill(Request $request, Share $share, SharedThing $thing): Response
    {
        $drill = $thing->drill;
        \assert(null !== $drill);
        $level = max(0, min(\count($drill->file->drill->levels), $request->query->getInt('level')));

        return $this->render('look/drill.html.twig', [
            'share' => $share, 'name' => $thing->name, 'is_card' => ShareKind::Card === $thing->kind,
        ] + $this->sights->drill($drill->file, $level, new Equipment(), HeldScreen::isUpright($request)));
    }

    private function followed(?Share $share): JsonResponse
    {
        $sheet = null === $share ? null : $this->desk->shown($share)?->sheet;

        return new JsonResponse(
            ['leg' => null === $sheet ? null : $this->follows->leg($sheet)],
            null === $sheet ? Response::HTTP_NOT_FOUND : Response::HTTP_OK,
            ['Cache-Control' => 'no-store'],
        );
    }

    private function tips(): TipUnit
    {
        $reader = $this->getUser();

        return $reader instanceof Account ? $reader->getTipUnit() : TipUnit::Tips;
    }
}
