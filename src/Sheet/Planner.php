<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Messenger\MessageBusInterface;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Log\ErrorSource;
use ZigLane\App\Message\WorkOnPlan;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\Core\Rules\Rack;

/** Asks for plans and stops them. Two workers work on each; a sheet has one plan under way at the most. */
final readonly class Planner
{
    private const WORKERS = 2;

    public function __construct(
        private EntityManagerInterface $manager,
        private PlanJobRepository $jobs,
        private MessageBusInterface $bus,
        private ClockInterface $clock,
        private ErrorSource $errors,
    ) {
    }

    public function ask(RackSheet $sheet, PlanRequest $request): PlanJob
    {
        $before = $this->jobs->latestOf($sheet);
        if (null !== $before && !$before->getState()->isOver()) {
            $this->jobs->stop($before);
        }
        // The errors that the player's log shows, once it says enough and unless he refuses.
        $player = $this->errors->toPlanWith($sheet->getOwner());
        if (null !== $player && $player != $sheet->getRack()->player) {
            $sheet->playedBy($player, $this->clock->now());
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

        return $this->work($job, $sheet->getOwner());
    }

    /** The rest of a rack at the table, from where the balls lie now. */
    public function askAt(ShotRack $rack, Rack $now, int $afterShots): PlanJob
    {
        $this->jobs->stopAt($rack);
        $weights = $rack->getOwner()->getWeights()->toArray();

        return $this->work(new PlanJob(
            null,
            $now,
            ['forbidden' => [], 'before' => []],
            $weights,
            [],
            PlanRequest::SECONDS,
            1 + $afterShots,
            $this->clock->now(),
            $rack,
            $afterShots,
        ), $rack->getOwner());
    }

    private function work(PlanJob $job, Account $owner): PlanJob
    {
        $this->manager->wrapInTransaction(function () use ($job, $owner): void {
            $this->manager->persist($job);
            $this->manager->flush();
            for ($i = 0; $i < self::WORKERS; ++$i) {
                $this->bus->dispatch(new WorkOnPlan((string) $job->getId(), (string) $owner->getId()));
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
