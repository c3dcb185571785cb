<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Shot\ShotSolver;

/** Scores tries of a drill: those of a simulation, and those of a player by where the balls stopped. */
final class Judge
{
    /** Where a ladder of passes ends, diamonds along the table. */
    private const FAR_END = 7.9;

    private readonly Sight $sight;
    private readonly bool $isLadder;

    /** @var array<string, PotModel|null> what pockets take of a next ball, by its place and those of the others */
    private array $lines = [];

    public function __construct(
        private readonly Drill $drill,
        private readonly ShotSolver $solver,
        private readonly ExecutionErrors $player,
    ) {
        $this->sight = new Sight($solver->equipment->balls);
        $this->isLadder = $drill->isLadder();
    }

    public function ofEnding(Attempt $attempt, Ending $ending): TryScore
    {
        return $this->scored($attempt, $this->isDone($ending), $ending->final, \count($ending->struck));
    }

    /**
     * @param bool     $isDone what was to be done was done
     * @param Layout   $after  the balls that lie on the table, as far as it is known
     * @param int|null $opened balls that were moved; null where nobody counted
     */
    public function scored(Attempt $attempt, bool $isDone, Layout $after, ?int $opened = null): TryScore
    {
        if (!$isDone) {
            return new TryScore(0.0, false, false);
        }
        $points = $this->drill->done;
        $isWhole = true;
        foreach ($this->drill->targets as $target) {
            $share = $this->met($target, $attempt, $after, $opened);
            $points += $share * $target->points;
            $isWhole = $isWhole && $share > 0.0;
        }

        // In a count of tries in a row the one that ends it does not count.
        $isCounted = $isWhole || !($this->drill->goesOn || $this->drill->untilMiss);

        return new TryScore($isCounted ? $points : 0.0, true, $isWhole);
    }

    /**
     * What an ending is worth to who looks for a stroke: its points; in a ladder of passes what room it leaves for further ones too, a
     * point a diamond.
     */
    public function value(Attempt $attempt, Ending $ending): float
    {
        $score = $this->ofEnding($attempt, $ending);
        if (!$this->isLadder || !$ending->final->has(Ball::Cue)) {
            return $score->points;
        }
        $long = $ending->final->spot(Ball::Cue)->inDiamonds($this->solver->equipment->table)[0];

        return $score->isWhole ? $score->points + max(0.0, self::FAR_END - $long) : 0.0;
    }

    /** How far an ending is from what its targets want, in diamonds and the like: 0 where all are met. For a search without points yet. */
    public function shortBy(Attempt $attempt, Ending $ending): float
    {
        $short = $this->isDone($ending) ? 0.0 : 10.0;
        foreach ($this->drill->targets as $target) {
            if (TargetKind::Area === $target->kind) {
                $ball = $target->ball ?? Ball::Cue;
                $short += $ending->final->has($ball) && null !== $target->area
                    ? $target->area->outside(...$ending->final->spot($ball)->inDiamonds($this->solver->equipment->table))
                    : 4.0;
            } elseif (0.0 === $this->met($target, $attempt, $ending->final, \count($ending->struck))) {
                $short += 1.0;
            }
        }

        return $short;
    }

    public function isDone(Ending $ending): bool
    {
        if ($ending->isScratch()) {
            return false;
        }
        $rails = static fn (array $met): int => \count(array_filter($met, static fn (mixed $one): bool => $one instanceof Rail));
        if ($rails($ending->before) < $this->drill->before || $rails($ending->cushions) < $this->drill->cushions) {
            return false;
        }
        $ball = $this->drill->ball;

        return match ($this->drill->task) {
            Task::Pot => null === $ball
                ? [] !== $ending->pocketed
                : $ending->first === $ball && null !== $ending->pocketOf($ball)
                    && \in_array($this->drill->pocket, [null, $ending->pocketOf($ball)], true),
            Task::Hit => null !== $ending->first && (null === $ball || $ball === $ending->first) && [] === $ending->pocketed,
            Task::Lag => null === $ending->first,
            Task::Run, Task::Break => true,
        };
    }

    /** @return float factor of the target's points: 0 where it is not met */
    private function met(Target $target, Attempt $attempt, Layout $after, ?int $opened): float
    {
        if (TargetKind::Opened === $target->kind) {
            return null !== $opened && $opened >= $target->least ? 1.0 : 0.0;
        }
        $ball = TargetKind::Area === $target->kind ? $target->ball ?? Ball::Cue : Ball::Cue;
        if (!$after->has($ball)) {
            return 0.0;
        }
        [$long, $short] = $after->spot($ball)->inDiamonds($this->solver->equipment->table);

        return match ($target->kind) {
            TargetKind::Area => $target->area?->worth($long, $short) ?? 0.0,
            TargetKind::Past => $long > ($attempt->last ?? 0.0) ? 1.0 : 0.0,
            TargetKind::Hidden => $this->isHidden($target, $after) ? 1.0 : 0.0,
            TargetKind::Zone => $this->next($target, $after) >= $target->odds ? 1.0 : 0.0,
        };
    }

    private function isHidden(Target $target, Layout $after): bool
    {
        foreach (null === $target->ball ? $after->without(Ball::Cue)->balls() : [$target->ball] as $ball) {
            if ($after->has($ball) && $this->sight->seen($after, $after->spot(Ball::Cue), $ball)[0] > 0.0) {
                return false;
            }
        }

        return true;
    }

    /** Chance of the next ball from where the cue ball lies. */
    private function next(Target $target, Layout $after): float
    {
        if (null === $target->ball || !$after->has($target->ball)) {
            return 0.0;
        }
        $best = 0.0;
        foreach (null === $target->pocket ? Pocket::cases() : [$target->pocket] as $pocket) {
            $key = $target->ball->value.$pocket->value;
            foreach ($after->without(Ball::Cue)->balls() as $ball) {
                $key .= \sprintf(' %d %.4f %.4f', $ball->value, $after->spot($ball)->x, $after->spot($ball)->y);
            }
            if (!\array_key_exists($key, $this->lines)) {
                $this->lines[$key] = PotModel::find($after, $target->ball, $pocket, $this->solver, $this->player, true);
            }
            $best = max($best, $this->lines[$key]?->chance($after->spot(Ball::Cue)) ?? 0.0);
        }

        return $best;
    }
}
