<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\ThreeAhead;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BreakShot;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;

/**
 * Runs of a drill by simulated players, in blocks that may be played in any order: the same seed and blocks give the same scores. What is
 * drawn is one of a few set-ups, for each of which the stroke is found once.
 */
final class ParRuns
{
    public const BLOCK = 50;
    /** Set-ups that are drawn from. */
    private const DRAWS = 10;
    /** How finely the end of the try before is told apart, diamonds. */
    private const LAST = 0.25;

    private readonly SetUp $setUp;
    private readonly Judge $judge;
    private readonly StrokeFinder $finder;
    private ?ThreeAhead $chooser = null;

    /** @var array<string, Played|null> by set-up, step and what came before */
    private array $strokes = [];

    /** @var array<int, Layout|null> where runs begin, by the set-up */
    private array $starts = [];

    public function __construct(
        private readonly Drill $drill,
        private readonly ShotSolver $solver,
        private readonly ExecutionErrors $player,
        private readonly int $seed = 1,
    ) {
        $this->setUp = new SetUp($drill, $solver->equipment);
        $this->judge = new Judge($drill, $solver, $player);
        $this->finder = new StrokeFinder($drill, $solver, $player, $this->judge);
    }

    /**
     * All runs, one block after the other.
     *
     * @throws IllegalLayout If the balls cannot be set up
     */
    public function play(int $runs): Par
    {
        $blocks = [];
        for ($done = 0; $done < $runs; $done += self::BLOCK) {
            $blocks[] = $this->block(intdiv($done, self::BLOCK), min(self::BLOCK, $runs - $done));
        }
        $par = Par::sum($blocks, $this->drill->pass);

        return new Par($par->scores, $par->pass, 0.0 === $par->mean() ? $this->why() : null);
    }

    /**
     * @param (\Closure(): void)|null $after called after each run
     *
     * @return array<int|string, int> runs by their points
     *
     * @throws IllegalLayout If the balls cannot be set up
     */
    public function block(int $block, int $runs = self::BLOCK, ?\Closure $after = null): array
    {
        $scores = [];
        for ($i = 0; $i < $runs; ++$i) {
            $points = (string) round($this->run(($this->seed * 48_271 + $block * 7919 + $i * 104_729 + 13) & 0x7FFFFFFF), 2);
            $scores[$points] = ($scores[$points] ?? 0) + 1;
            null === $after ?: $after();
        }

        return $scores;
    }

    /** Why nobody scores: there is no stroke for what is to be done, or it was never done. */
    public function why(): string
    {
        return null === $this->stroke(0, 0, null) && !$this->drill->task->isCounted() ? 'noStroke' : 'never';
    }

    /** The stroke that is found for the first try of the first set-up; null for a run or a break, or where there is none. */
    public function first(): ?Played
    {
        return $this->drill->task->isCounted() ? null : $this->stroke(0, 0, null);
    }

    /**
     * One run of a drill that is not counted by balls, try by try: for demonstrations.
     *
     * @return list<array{isDone: bool, after: Layout|null}>
     */
    public function tries(int $seed): array
    {
        $tries = [];
        $this->run($seed, static function (TryScore $score, ?Ending $ending) use (&$tries): void {
            $tries[] = ['isDone' => $score->isDone, 'after' => $ending?->final];
        });

        return $tries;
    }

    /** @param (\Closure(TryScore, Ending|null): void)|null $watched called after each try */
    private function run(int $seed, ?\Closure $watched = null): float
    {
        $random = new Randomness($seed);
        if ($this->drill->task->isCounted()) {
            $points = 0.0;
            for ($try = 1; $try <= $this->drill->tries; ++$try) {
                $points += Task::Break === $this->drill->task ? $this->broken($random) : $this->ranOut($seed + $try, $random);
            }

            return $points;
        }
        $series = new Series($this->drill, $this->solver->equipment, $this->seed);
        // Ends: each round adds a try, and the drill limits their number.
        while (!$series->isOver()) {
            $draw = (int) ($random->share() * self::DRAWS);
            $isSetUp = $series->isSetUp();
            $attempt = $isSetUp ? $this->attempt($draw, $series->step, $series->last) : $series->attempt();
            $played = $isSetUp
                ? $this->stroke($draw, $series->step, $series->last)
                : $this->finder->find($attempt, $seed + $attempt->number, true);
            [$score, $ending] = null === $played ? [new TryScore(0.0, false, false), null] : $this->tried($attempt, $played, $random);
            if (null !== $watched) {
                $watched($score, $ending);
            }
            $series->add($score, $ending?->final);
        }

        return $series->score();
    }

    /** @return array{TryScore, Ending|null} */
    private function tried(Attempt $attempt, Played $played, Randomness $random): array
    {
        $layout = null === $played->place ? $attempt->layout : $attempt->layout->with(Ball::Cue, $played->place);
        try {
            $ending = $this->solver->simulator->rollouts($layout)->play(
                $played->errors->disturb($played->strike, $random, $this->solver->equipment->balls->radius),
            );
        } catch (CoreError) {
            return [new TryScore(0.0, false, false), null];
        }

        return [$this->judge->ofEnding($attempt, $ending), $ending];
    }

    private function attempt(int $draw, int $step, ?float $last): Attempt
    {
        $number = $this->drill->isDrawn() ? $draw : 0;

        return $this->setUp->attempt($this->seed, 1 + $number, $step, $last);
    }

    private function stroke(int $draw, int $step, ?float $last): ?Played
    {
        $bin = null === $last || !$this->drill->isLadder() ? null : self::LAST * ceil($last / self::LAST);
        $key = ($this->drill->isDrawn() ? $draw : 0)." $step ".($bin ?? '');
        if (!\array_key_exists($key, $this->strokes)) {
            $this->strokes[$key] = $this->finder->find($this->attempt($draw, $step, $bin), $this->seed);
        }

        return $this->strokes[$key];
    }

    /** Balls made one after the other from a set-up. */
    private function ranOut(int $seed, Randomness $random): int
    {
        $draw = (int) ($random->share() * self::DRAWS);
        $attempt = $this->attempt($draw, 0, null);
        $rack = new Rack($this->drill->game ?? Game::StraightPool, $attempt->layout, $this->solver->equipment, $this->player);
        $this->chooser ??= new ThreeAhead($rack, $this->solver, grid: 0.06, isQuick: true, isCoarse: true);
        $layout = $this->starts[$this->drill->isDrawn() ? $draw : 0] ??= $this->placed($attempt->layout, $this->seed);
        // Ends: each round takes the called ball away or returns.
        for ($made = 0; null !== $layout && $layout->without(Ball::Cue)->count() > 0; ++$made) {
            $option = $this->chooser->next($layout, $seed + 31 * $made);
            if (null === $option) {
                return $made;
            }
            $errors = $this->player->in(
                $option->strike,
                ShotDemands::of($this->solver, $layout, $option->aimed(), $this->player->growth),
            );
            try {
                $ending = $this->solver->simulator->rollouts($layout)->play(
                    $errors->disturb($option->strike, $random, $this->solver->equipment->balls->radius),
                );
            } catch (CoreError) {
                return $made;
            }
            if ($ending->isScratch() || $ending->pocketOf($option->choice->ball) !== $option->choice->pocket) {
                return $made;
            }
            $layout = $ending->final;
        }

        return $made;
    }

    /** With ball in hand: the place from which the first ball goes surest, of a few. */
    private function placed(Layout $layout, int $seed): ?Layout
    {
        if ($layout->has(Ball::Cue)) {
            return $layout;
        }
        $best = null;
        foreach ($this->finder->layouts(new Attempt($layout), $seed, false) as [$placed]) {
            $option = $this->chooser?->next($placed, $seed);
            if (null !== $option && (null === $best || $option->value > $best[0])) {
                $best = [$option->value, $placed];
            }
        }

        return $best[1] ?? null;
    }

    /** Points of a break: a ball that dropped is one; nothing after a scratch. What the targets want counts beside it. */
    private function broken(Randomness $random): float
    {
        try {
            $break = BreakShot::play($this->drill->game ?? Game::NineBall, $this->solver->equipment, $this->player, $random);
        } catch (CoreError) {
            return 0.0;
        }
        if ($break->outcome->isScratch()) {
            return 0.0;
        }
        $ending = Ending::of($break->outcome);

        return $break->made() + $this->judge->scored(new Attempt($break->rack), true, $ending->final)->points;
    }
}
