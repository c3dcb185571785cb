<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use ZigLane\App\Entity\PlanJob;
use ZigLane\Core\Decide\SafeEnd;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Plan\PlanSearch;
use ZigLane\Core\Plan\ReplaySchedule;
use ZigLane\Core\Plan\Tally;

/**
 * The run-out of a job.
 *
 * @phpstan-import-type Numbers from Tally
 */
final readonly class PlanJobSearch implements JobSearch
{
    /** Plans side by side. */
    private const PLANS = 5;

    private PlanSearch $search;

    public function __construct(PlanJob $job)
    {
        $this->search = new PlanSearch($job->getRack(), $job->getConstraints(), $job->getWeights(), $job->getSeed());
    }

    public function refusal(): ?CoreError
    {
        return PlanSearch::refusal($this->search->rack);
    }

    public function first(float $seconds): ?string
    {
        $first = $this->search->first();

        return null === $first ? null : (new PlanFile([$first], $seconds, $this->search->simulated()))->write();
    }

    public function ways(): int
    {
        return \count($this->search->candidates()) ?: throw $this->search->nothing();
    }

    public function searched(): float
    {
        return 0.6;
    }

    public function blocks(): int
    {
        return ReplaySchedule::blocks(\count($this->search->candidates()));
    }

    public function due(array $done): array
    {
        return ReplaySchedule::due(self::tallies($done), $this->search->fuss());
    }

    public function owed(array $done): array
    {
        return ReplaySchedule::owed(self::tallies($done), $this->search->fuss());
    }

    public function block(int $way, int $block): array
    {
        return $this->search->block($this->search->candidates()[$way], $block)->toArray();
    }

    public function written(array $done, bool $isLast, float $seconds, \Closure $hasTime): string
    {
        $plans = $this->search->written(self::tallies($done), $isLast ? self::PLANS : 1, $hasTime, isWhole: $isLast);
        \assert([] !== $plans);
        if ($isLast) {
            // Where a safety is worth more than the pot with which the best plan would go on.
            $plans[0] = SafeEnd::of($plans[0], $this->search->rack->player);
        }

        return (new PlanFile($plans, $seconds, $this->search->simulated()))->write();
    }

    /**
     * @param list<array<int, array<mixed>>> $done
     *
     * @return list<array<int, Tally>>
     */
    private static function tallies(array $done): array
    {
        return array_map(static fn (array $blocks): array => array_map(self::tally(...), $blocks), $done);
    }

    /** @param array<mixed> $written by `block` */
    private static function tally(array $written): Tally
    {
        /** @var Numbers $numbers */
        $numbers = $written;

        return Tally::fromArray($numbers);
    }
}
