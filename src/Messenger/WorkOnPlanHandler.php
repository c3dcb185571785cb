<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Psr\Log\LoggerInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\PlanState;
use ZigLane\App\Message\WorkOnPlan;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\App\Words\Words;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Plan\PlanSearch;
use ZigLane\Core\Plan\ReplaySchedule;
use ZigLane\Core\Plan\Tally;

/**
 * Works on a plan beside whoever else does: finds the ways to begin (every worker finds the same), takes one block of replays after the
 * other that nobody has, and at the end one of the workers writes the plans down. What is done is in the database after every block.
 */
#[AsMessageHandler]
final class WorkOnPlanHandler
{
    /** Searches that a worker keeps, so that it need not begin again what it put aside for others' work. */
    private const KEPT = 2;
    /** Blocks after which a better plan is drawn on the way. */
    private const DRAWN_EVERY = 24;
    /** Share of the time that is searched; the rest is for writing the plans down. */
    private const SEARCHED = 0.6;
    private const WRITTEN = 1.0;
    /** Pause while others have all that is due, microseconds. */
    private const PAUSE = 50_000;
    /** Plans side by side. */
    private const PLANS = 5;

    /** @var array<string, PlanSearch> by job, the one that was used last at the end */
    private array $searches = [];
    private float $counted = 0.0;

    public function __construct(
        private readonly PlanJobRepository $jobs,
        private readonly FairShare $share,
        private readonly MessageBusInterface $bus,
        private readonly Words $words,
        private readonly LoggerInterface $laneLogger,
    ) {
    }

    public function __invoke(WorkOnPlan $message): void
    {
        $id = Uuid::fromString($message->jobId);
        $job = $this->jobs->fresh($id);
        if (null === $job || $job->getState()->isOver()) {
            return;
        }
        $this->counted = microtime(true);
        $isFirst = $this->jobs->start($job);
        if (!$isFirst) {
            $this->jobs->resume($job);
        }
        try {
            if (!$this->work($job, $message, $isFirst)) {
                $this->bus->dispatch($message);
            }
        } catch (CoreError $e) {
            $this->jobs->nothing($job, $this->words->error($e));
        }
        $this->count($message);
        $this->laneLogger->info('Worked on a plan.', ['job' => $message->jobId]);
    }

    /** @return bool false where it makes way for others' work and has to be gone on with */
    private function work(PlanJob $job, WorkOnPlan $message, bool $isFirst): bool
    {
        $id = $job->getId();
        $refusal = PlanSearch::refusal($job->getRack());
        if (null !== $refusal) {
            throw $refusal;
        }
        $search = $this->search($job);
        // One worker draws a first plan before the ways to begin are weighed.
        $first = $isFirst ? $search->first() : null;
        if (null !== $first) {
            $this->jobs->draw($job, (new PlanFile([$first], $this->jobs->secondsOf($job), $search->simulated()))->write());
        }
        if ($this->jobs->isOver($id)) {
            return true;
        }
        $candidates = $search->candidates();
        if ([] === $candidates) {
            throw $search->nothing();
        }
        $this->jobs->begin($job, \count($candidates), ReplaySchedule::blocks(\count($candidates)));
        $drawn = 0;
        while (true) {
            $job = $this->jobs->fresh($id);
            if (null === $job || $job->getState()->isOver() || PlanState::Writing === $job->getState()) {
                break;
            }
            $done = $this->jobs->done($job, \count($candidates));
            $due = ReplaySchedule::due($done, $search->fuss());
            if (
                [] === $due
                || PlanState::Stopping === $job->getState()
                || ($job->getDoneBlocks() > 0 && $this->jobs->secondsOf($job) >= self::SEARCHED * $job->getSeconds())
            ) {
                break;
            }
            if ($job->getDoneBlocks() >= $drawn + self::DRAWN_EVERY) {
                $drawn = $job->getDoneBlocks();
                $this->jobs->draw($job, $this->written($job, $search, $done, 1));
            }
            if ($this->oneBlock($job, $search, $due)) {
                $this->count($message);
            } else {
                usleep(self::PAUSE);
            }
            if ($this->share->makesWay($message->accountId)) {
                return false;
            }
        }
        unset($this->searches[(string) $id]);
        if (null !== $job && $this->jobs->mayWrite($job)) {
            $this->jobs->write($job, $this->written($job, $search, $this->jobs->done($job, \count($candidates)), self::PLANS));
        }

        return true;
    }

    private function search(PlanJob $job): PlanSearch
    {
        $id = (string) $job->getId();
        $search = $this->searches[$id] ?? new PlanSearch($job->getRack(), $job->getConstraints(), $job->getWeights(), $job->getSeed());
        unset($this->searches[$id]);
        $this->searches = [...\array_slice($this->searches, 1 - self::KEPT), $id => $search];

        return $search;
    }

    /** What this worker has worked since it was last counted. */
    private function count(WorkOnPlan $message): void
    {
        $now = microtime(true);
        $this->share->add($message->accountId, $now - $this->counted);
        $this->counted = $now;
    }

    /** @param non-empty-list<array{int, int}> $due */
    private function oneBlock(PlanJob $job, PlanSearch $search, array $due): bool
    {
        foreach ($due as [$candidate, $block]) {
            if ($this->jobs->take($job, $candidate, $block)) {
                $this->jobs->finish($job, $candidate, $block, $search->block($search->candidates()[$candidate], $block));

                return true;
            }
        }

        return false;
    }

    /** @param list<array<int, Tally>> $done */
    private function written(PlanJob $job, PlanSearch $search, array $done, int $most): string
    {
        $plans = $search->written(
            $done,
            $most,
            fn (): bool => $this->jobs->secondsOf($job) < self::WRITTEN * $job->getSeconds() && !$this->jobs->isOver($job->getId()),
        );
        \assert([] !== $plans);

        return (new PlanFile($plans, $this->jobs->secondsOf($job), $search->simulated()))->write();
    }
}
