<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Messenger\MessageBusInterface;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Message\WorkOnPlan;
use ZigLane\App\Repository\PlanJobRepository;

/** Asks for plans and stops them. Two workers work on each; a sheet has one plan under way at the most. */
final readonly class Planner
{
    private const WORKERS = 2;

    public function __construct(
        private EntityManagerInterface $manager,
        private PlanJobRepository $jobs,
        private MessageBusInterface $bus,
        private ClockInterface $clock,
    ) {
    }

    public function ask(RackSheet $sheet, PlanRequest $request): PlanJob
    {
        $before = $this->jobs->latestOf($sheet);
        if (null !== $before && !$before->getState()->isOver()) {
            $this->jobs->stop($before);
        }
        $job = new PlanJob(
            $sheet,
            $request->rack($sheet->getRack()),
            $request->constraints(),
            $request->weights(),
            $request->isOwn ? $sheet->getLegs() : $request->locked($sheet),
            $request->seconds,
            $request->seed,
            $this->clock->now(),
        );
        $sheet->getOwner()->planWith($job->getWeights());
        $this->manager->wrapInTransaction(function () use ($job, $sheet): void {
            $this->manager->persist($job);
            $this->manager->flush();
            for ($i = 0; $i < self::WORKERS; ++$i) {
                $this->bus->dispatch(new WorkOnPlan((string) $job->getId(), (string) $sheet->getOwner()->getId()));
            }
        });

        return $job;
    }

    public function stop(RackSheet $sheet): void
    {
        $job = $this->jobs->latestOf($sheet);
        if (null !== $job) {
            $this->jobs->stop($job);
        }
    }
}
