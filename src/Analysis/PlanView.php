<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Plan\Leg;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Plan\RunEnd;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;

/** A plan as it is looked at: one of several, one leg of it chosen. What is drawn is played again from the strokes of the file. */
final readonly class PlanView
{
    /** Ways to end below this share are not told. */
    private const TOLD = 0.005;
    /** Balls that most replays end on that are told. */
    private const ENDS = 3;

    public Plan $plan;
    public Leg $leg;
    /** From 1. */
    public int $number;
    public int $chosen;
    /** @var list<SolvedShot|null> of the legs; null for one that these rules and this table no longer play */
    public array $shots;

    public function __construct(public PlanFile $file, int $chosen, int $leg)
    {
        $this->chosen = max(0, min($chosen, \count($file->plans) - 1));
        $this->plan = $file->plan($this->chosen);
        $this->number = max(1, min($leg, \count($this->plan->legs)));
        $this->leg = $this->plan->legs[$this->number - 1];
        $solver = new ShotSolver($this->plan->rack->equipment);
        $this->shots = array_map(static function (Leg $leg) use ($solver): ?SolvedShot {
            try {
                return $solver->solve($leg->before, $leg->choice);
            } catch (CoreError) {
                return null;
            }
        }, $this->plan->legs);
    }

    public function shot(): ?SolvedShot
    {
        return $this->shots[$this->number - 1] ?? null;
    }

    /** The rack as it lies before the chosen leg. */
    public function rack(): Rack
    {
        return $this->plan->rack->withLayout($this->leg->before);
    }

    /** @return list<Fact> how the replays end that do not finish, the most frequent first */
    public function ends(): array
    {
        $ends = array_filter(RunEnd::cases(), fn (RunEnd $end): bool => $this->plan->replays->share($end) >= self::TOLD);
        usort($ends, fn (RunEnd $a, RunEnd $b): int => $this->plan->replays->share($b) <=> $this->plan->replays->share($a));

        return array_map(fn (RunEnd $end): Fact => new Fact('ends.'.$end->value, ['share' => $this->plan->replays->share($end)]), $ends);
    }

    /** @return list<Fact> the balls that most replays end on */
    public function endsOn(): array
    {
        return array_map(
            static fn (array $end): Fact => new Fact('ends.onBall', ['ball' => $end[0], 'share' => $end[1]]),
            \array_slice($this->plan->replays->endsOn(), 0, self::ENDS),
        );
    }

    /** @return list<Fact> what goes wrong on the chosen leg, of 0.5 % or more */
    public function risks(): array
    {
        $facts = [];
        foreach ($this->leg->risks->toArray() as $kind => $share) {
            if ($share >= self::TOLD) {
                $facts[] = new Fact('risk.'.$kind, ['share' => $share]);
            }
        }

        return $facts;
    }

    /** The group that the plan plays, where the table was open. */
    public function groupChosen(): ?Group
    {
        return null !== $this->plan->group && Group::Open === ($this->plan->rack->group ?? Group::Open) ? $this->plan->group : null;
    }

    /** What a plan's chance is between, or its balls. */
    public function between(int $number): string
    {
        $replays = $this->file->plan($number)->replays;

        return $replays->isOverRacks
            ? \sprintf('%.1f to %.1f', ...$replays->ballsInterval())
            : \sprintf('%.0f to %.0f %%', 100 * $replays->interval()[0], 100 * $replays->interval()[1]);
    }

    /** Whether a plan's chance is within five points of the best one's, or its balls within one. */
    public function isAlike(int $number): bool
    {
        [$best, $other] = [$this->file->best()->replays, $this->file->plan($number)->replays];

        return $best->isOverRacks ? abs($best->balls() - $other->balls()) < 1.0 : abs($best->chance() - $other->chance()) < 0.055;
    }

    /**
     * What a plan has less than the best, in whole points; null where their intervals overlap, so that it cannot be said.
     */
    public function less(int $number): ?int
    {
        [$best, $other] = [$this->file->best()->replays, $this->file->plan($number)->replays];
        if (0 === $best->tries || 0 === $other->tries) {
            return null;
        }
        if ($best->isOverRacks) {
            return $other->ballsInterval()[1] >= $best->ballsInterval()[0] ? null : (int) max(1, round($best->balls() - $other->balls()));
        }
        if ($other->interval()[1] >= $best->interval()[0]) {
            return null;
        }

        return (int) round(100 * ($best->chance() - $other->chance()));
    }
}
