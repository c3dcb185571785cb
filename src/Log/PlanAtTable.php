<?php

declare(strict_types=1);

namespace ZigLane\App\Log;

use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\App\Sheet\Planner;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Plan\Leg;

/** The plan that is followed at the table: the one that the rack began with, then one planned anew after every shot. */
final readonly class PlanAtTable
{
    /** Name of the plan that the rack began with. */
    public const START = 'start';

    public function __construct(private PlanJobRepository $jobs)
    {
    }

    public function job(ShotRack $rack, int $shots): ?PlanJob
    {
        return $this->jobs->latestAt($rack, $shots);
    }

    /**
     * The best plan after so many shots, and its name in entries; null before there is one.
     *
     * @return array{string, PlanFile}|null
     */
    public function of(ShotRack $rack, int $shots): ?array
    {
        $job = $this->job($rack, $shots);
        $plan = self::kept($job);
        if (null !== $job && null !== $plan) {
            return [(string) $job->getId(), $plan];
        }
        $plan = 0 === $shots ? self::read($rack->getPlan()) : null;

        return null === $plan ? null : [self::START, $plan];
    }

    /**
     * What was planned before the last shot, from the leg after it on: what there is to show until it is planned anew.
     *
     * @return array{string, PlanFile, int}|null with the number of that leg
     */
    public function before(ShotRack $rack, int $shots): ?array
    {
        for ($back = 1; $back <= $shots && $back <= 3; ++$back) {
            $known = $this->of($rack, $shots - $back);
            if (null === $known) {
                continue;
            }
            foreach ($known[1]->best()->legs as $leg) {
                if ($leg->number > 1 && $rack->getNow()->layout->has($leg->choice->ball)) {
                    return [$known[0], $known[1], $leg->number];
                }
            }
        }

        return null;
    }

    /** The leg that an entry followed; null where something else was shot, or the plan is gone. */
    public function legOf(ShotRack $rack, ShotEntry $entry): ?Leg
    {
        if (null === $entry->plan || null === $entry->leg) {
            return null;
        }
        $plan = self::START === $entry->plan ? self::read($rack->getPlan()) : null;
        if (Uuid::isValid($entry->plan)) {
            $job = $this->jobs->find(Uuid::fromString($entry->plan));
            $plan = null !== $job && $job->getShotRack() === $rack ? self::kept($job) : null;
        }
        $leg = $plan?->best()->legs[$entry->leg - 1] ?? null;

        return null !== $leg && $leg->choice->ball === $entry->ball && $leg->choice->pocket === $entry->pocket ? $leg : null;
    }

    /** The rest of a rack is planned from how it lies, unless that is known or under way. */
    public function ask(ShotRack $rack, Planner $planner, int $shots): void
    {
        if (
            null === $rack->getEnd() && RackKind::Tries !== $rack->getKind() && [] !== $rack->getNow()->objectBalls()
            && null === $this->job($rack, $shots) && (0 !== $shots || null === $rack->getPlan())
        ) {
            $planner->askAt($rack, $rack->getNow(), $shots);
        }
    }

    /** Null where there is none, or what is kept can no longer be read. */
    private static function kept(?PlanJob $job): ?PlanFile
    {
        try {
            return $job?->getPlan();
        } catch (InvalidFile) {
            return null;
        }
    }

    private static function read(?string $file): ?PlanFile
    {
        try {
            return null === $file ? null : PlanFile::parse($file, \PHP_INT_MAX);
        } catch (InvalidFile) {
            return null;
        }
    }
}
