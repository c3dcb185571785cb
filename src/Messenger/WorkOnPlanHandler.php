<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Psr\Log\LoggerInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Translation\LocaleSwitcher;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\JobKind;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\PlanState;
use ZigLane\App\Language\PageWords;
use ZigLane\App\Message\OfAccount;
use ZigLane\App\Message\WorkOnPlan;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\App\Words\Words;
use ZigLane\App\Work\LongWork;
use ZigLane\App\Work\Workbench;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;

/**
 * Works on a job, a plan or the options of a position, beside whoever else does: finds the ways (every worker finds the same), takes one
 * block after the other that nobody has, and at the end one of the workers writes the answer down. What is done is in the
 * database after every block.
 */
#[AsMessageHandler]
final class WorkOnPlanHandler implements LongWork
{
    /** Searches that a worker keeps, so that it need not begin again what it put aside for others' work. */
    private const KEPT = 2;
    /** Blocks after which a better plan is drawn on the way. */
    private const DRAWN_EVERY = 24;
    private const WRITTEN = 1.0;
    /** Pause while others have all that is due, microseconds. */
    private const PAUSE = 50_000;

    /** @var array<string, JobSearch> by job, the one that was used last at the end */
    private array $searches = [];

    public function __construct(
        private readonly PlanJobRepository $jobs,
        private readonly Workbench $bench,
        private readonly MessageBusInterface $bus,
        private readonly Words $words,
        private readonly LocaleSwitcher $switcher,
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
        $isFirst = $this->jobs->start($job);
        if (!$isFirst) {
            $this->jobs->resume($job);
        }
        try {
            if (!$this->work($job, $message, $isFirst)) {
                $this->bus->dispatch($message);
            }
        } catch (CoreError $e) {
            $this->jobs->nothing($job, $this->told($job, $e));
        }
        $this->laneLogger->info('Worked on a plan.', ['job' => $message->jobId]);
    }

    public static function message(): string
    {
        return WorkOnPlan::class;
    }

    public function giveUp(OfAccount $message, Fact $why): void
    {
        $job = $this->jobs->fresh(Uuid::fromString($message->about()));
        if (null !== $job) {
            $this->jobs->nothing($job, $this->told($job, $why));
        }
    }

    /** Why nothing is planned, in the language of whoever asked. */
    private function told(PlanJob $job, CoreError|Fact $why): string
    {
        $owner = $job->getSheet()?->getOwner() ?? $job->getShotRack()?->getOwner();

        return $this->switcher->runWithLocale(
            $owner?->getLanguage() ?: PageWords::ENGLISH,
            fn (): string => $why instanceof Fact ? $this->words->of($why) : $this->words->error($why),
        );
    }

    /** @return bool false where it makes way for others' work and has to be gone on with */
    private function work(PlanJob $job, WorkOnPlan $message, bool $isFirst): bool
    {
        $id = $job->getId();
        $search = $this->search($job);
        $refusal = $search->refusal();
        if (null !== $refusal) {
            throw $refusal;
        }
        // One worker draws a first answer before the ways to begin are weighed.
        $first = $isFirst ? $search->first($this->jobs->secondsOf($job)) : null;
        if (null !== $first) {
            $this->jobs->draw($job, $first);
        }
        if ($this->jobs->isOver($id)) {
            return true;
        }
        $ways = $search->ways();
        $this->jobs->begin($job, $ways, $search->blocks());
        $drawn = 0;
        while (true) {
            $job = $this->jobs->fresh($id);
            if (null === $job || $job->getState()->isOver() || PlanState::Writing === $job->getState()) {
                break;
            }
            $done = $this->jobs->done($job, $ways);
            // When its time is over only what an answer must rest on is done.
            $isLate = $this->jobs->secondsOf($job) >= $search->searched() * $job->getSeconds();
            $due = $isLate ? $search->owed($done) : $search->due($done);
            if ([] === $due || PlanState::Stopping === $job->getState()) {
                break;
            }
            if ($job->getDoneBlocks() >= $drawn + self::DRAWN_EVERY) {
                $drawn = $job->getDoneBlocks();
                $this->jobs->draw($job, $this->written($job, $search, $done, false));
            }
            if (!$this->oneBlock($job, $search, $due)) {
                usleep(self::PAUSE);
            }
            if ($this->bench->mustPause()) {
                return false;
            }
        }
        unset($this->searches[(string) $id]);
        if (null !== $job && $this->jobs->mayWrite($job)) {
            $this->jobs->write($job, $this->written($job, $search, $this->jobs->done($job, $ways), true));
        }

        return true;
    }

    private function search(PlanJob $job): JobSearch
    {
        $id = (string) $job->getId();
        $search = $this->searches[$id] ?? match ($job->getKind()) {
            JobKind::Plan => new PlanJobSearch($job),
            JobKind::Options => new OptionsJobSearch($job),
        };
        unset($this->searches[$id]);
        $this->searches = [...\array_slice($this->searches, 1 - self::KEPT), $id => $search];

        return $search;
    }

    /** @param non-empty-list<array{int, int}> $due */
    private function oneBlock(PlanJob $job, JobSearch $search, array $due): bool
    {
        foreach ($due as [$way, $block]) {
            if ($this->jobs->take($job, $way, $block)) {
                $this->jobs->finish($job, $way, $block, $search->block($way, $block));

                return true;
            }
        }

        return false;
    }

    /** @param list<array<int, array<mixed>>> $done */
    private function written(PlanJob $job, JobSearch $search, array $done, bool $isLast): string
    {
        return $search->written(
            $done,
            $isLast,
            $this->jobs->secondsOf($job),
            fn (): bool => $this->jobs->secondsOf($job) < self::WRITTEN * $job->getSeconds() && !$this->jobs->isOver($job->getId()),
        );
    }
}
