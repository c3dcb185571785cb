<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
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
    /** Plans of an account under way, and asked for in an hour. */
    private const MOST = 4;
    private const MOST_AN_HOUR = 240;

    public function __construct(
        private EntityManagerInterface $manager,
        private PlanJobRepository $jobs,
        private MessageBusInterface $bus,
        private ClockInterface $clock,
        private ErrorSource $errors,
    ) {
    }

    /**
     * A plan of a sheet; one that is still worked on is replaced.
     *
     * @param bool $isBounded whether the account's limits count
     *
     * @throws TooManyRequestsHttpException If too many plans of the account are under way, or were asked for in the last hour
     */
    public function ask(RackSheet $sheet, PlanRequest $request, bool $isBounded = true): PlanJob
    {
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

        return $this->work($job, $sheet->getOwner(), function () use ($sheet): void {
            $this->jobs->endOf($sheet);
            $this->jobs->prune($sheet);
        }, $isBounded);
    }

    /** The rest of a rack at the table, from where the balls lie now. */
    public function askAt(ShotRack $rack, Rack $now, int $afterShots): PlanJob
    {
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
        ), $rack->getOwner(), fn () => $this->jobs->stopAt($rack), false);
    }

    /** @param \Closure(): void $replace ends what this one replaces */
    private function work(PlanJob $job, Account $owner, \Closure $replace, bool $isBounded): PlanJob
    {
        $this->manager->wrapInTransaction(function () use ($job, $owner, $replace, $isBounded): void {
            // One after the other, however many are asked for at once.
            $this->manager->lock($owner, LockMode::PESSIMISTIC_WRITE);
            $replace();
            $load = $this->jobs->load($owner);
            if ($isBounded && $load->underWay >= self::MOST) {
                throw new TooManyRequestsHttpException(
                    10,
                    \sprintf('%d plans of yours are being worked out already. Wait for one, or stop it.', self::MOST),
                );
            }
            if ($isBounded && $load->inAnHour >= self::MOST_AN_HOUR) {
                throw new TooManyRequestsHttpException(
                    600,
                    \sprintf('%d plans were asked for in the last hour. Come back a little later.', self::MOST_AN_HOUR),
                );
            }
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
