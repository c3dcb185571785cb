<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use ZigLane\App\Entity\PlanJob;
use ZigLane\Core\Decide\OptionSearch;
use ZigLane\Core\Decide\Refusal;
use ZigLane\Core\Decide\WayTally;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\OptionsFile;
use ZigLane\Core\Plan\NothingToPlan;

/** The options of a job's position. */
final readonly class OptionsJobSearch implements JobSearch
{
    private OptionSearch $search;

    public function __construct(PlanJob $job)
    {
        $this->search = new OptionSearch($job->getRack(), $job->getOpponent() ?? $job->getRack()->player, $job->getSeed());
    }

    public function refusal(): ?CoreError
    {
        return Refusal::of($this->search->rack);
    }

    public function first(float $seconds): ?string
    {
        $options = $this->search->first();

        return [] === $options->list ? null : (new OptionsFile($options, $seconds, $this->search->solver->simulator->shots()))->write();
    }

    public function ways(): int
    {
        return \count($this->search->ways()) ?: throw NothingToPlan::noHit();
    }

    public function searched(): float
    {
        return 0.95;
    }

    public function blocks(): int
    {
        return OptionSearch::BLOCKS * \count($this->search->ways());
    }

    public function due(array $done): array
    {
        return $this->search->due(self::tallies($done));
    }

    public function owed(array $done): array
    {
        return $this->search->owed(self::tallies($done));
    }

    public function block(int $way, int $block): array
    {
        return $this->search->block($way, $block)->toArray();
    }

    public function written(array $done, bool $isLast, float $seconds, \Closure $hasTime): string
    {
        $options = $this->search->options(self::tallies($done));

        return (new OptionsFile($options, $seconds, $this->search->solver->simulator->shots()))->write();
    }

    /**
     * @param list<array<int, array<mixed>>> $done
     *
     * @return list<array<int, WayTally>>
     */
    private static function tallies(array $done): array
    {
        return array_map(static fn (array $blocks): array => array_map(WayTally::fromArray(...), $blocks), $done);
    }
}
