<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use ZigLane\App\Entity\JobKind;
use ZigLane\App\Entity\OwnDrill;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Practice\DrillMaker;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\App\Repository\ShotLog;
use ZigLane\App\Words\Refused;

/** "Practise this": a leg of a plan, an option or a shot becomes a drill of the player's own. */
final class PractiseController extends AbstractController
{
    public function __construct(private readonly DrillMaker $maker, private readonly PlanJobRepository $jobs)
    {
    }

    #[Route('/sheets/{id}/practise/leg', name: 'practise_leg', methods: ['POST'])]
    #[IsCsrfTokenValid('drill')]
    public function leg(Request $request, RackSheet $sheet): Response
    {
        $plan = $this->jobs->latestOf($sheet)?->getPlan()->plans[$request->request->getInt('plan')] ?? null;

        return $this->to($this->maker->ofLeg($sheet->getOwner(), $sheet->getName(), $plan, $request->request->getInt('leg')));
    }

    #[Route('/sheets/{id}/practise/option', name: 'practise_option', methods: ['POST'])]
    #[IsCsrfTokenValid('drill')]
    public function option(Request $request, RackSheet $sheet): Response
    {
        $job = $this->jobs->latestOf($sheet, JobKind::Options);

        return $this->to($this->maker->ofOption($sheet->getOwner(), $sheet->getName(), $job, $request->request->getInt('option')));
    }

    #[Route('/racks/{id}/practise', name: 'practise_shot', methods: ['POST'])]
    #[IsCsrfTokenValid('drill')]
    public function shot(Request $request, ShotRack $rack, ShotLog $log): Response
    {
        $shot = $log->shots($rack)[$request->request->getInt('shot') - 1] ?? throw Refused::because('noStrokeKept');
        $of = $rack->getSheet()?->getName() ?? $rack->getStartedAt()->format('Y-m-d');

        return $this->to($this->maker->ofShot($rack->getOwner(), $of, $shot, $rack->getStart()->equipment, $rack->getGame()));
    }

    private function to(OwnDrill $drill): Response
    {
        return $this->redirectToRoute('drill', ['key' => $drill->getId()], Response::HTTP_SEE_OTHER);
    }
}
