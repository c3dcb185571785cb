<?php

declare(strict_types=1);

namespace ZigLane\Core\Breaking;

use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Shot\ShotSolver;

/**
 * The break that brings a player the most run-outs: places, speeds and hits, of which fewer and fewer get more and more breaks (successive
 * halving). What is stated of those that are left is by breaks that had no part in choosing them.
 *
 * Cost: some 4,000 breaks, half a minute.
 */
final class BreakSearch
{
    /** Distances from the head spot across, in diamonds: to the left, since the table is the same in a mirror. */
    private const PLACES = [0.0, 0.6, 1.2, 1.7];
    private const LONG = [2.0, 1.4];
    private const SPEEDS = [5.5, 7.0, 8.5, 10.0];
    private const AIMS = [-0.25, 0.0, 0.25];
    private const HEIGHTS = [0.0, 0.2];
    /** Breaks of each in a stage, and how many are kept after it. */
    private const STAGES = [[12, 24], [24, 8], [60, 4]];
    private const STATED = 200;

    /** @param float $fastest m/s: a room or an arm may not allow more */
    public function __construct(
        private readonly Game $game,
        private readonly ExecutionErrors $player,
        private readonly ShotSolver $solver,
        private readonly RuleOptions $rules = new RuleOptions(),
        private readonly float $fastest = 12.0,
    ) {
    }

    /**
     * @param (\Closure(float): void)|null $progress told how far it is, 0 to 1
     *
     * @return list<array{BreakStroke, BreakTally}> the best first, each by breaks of its own; the softest good one is among them
     */
    public function find(int $seed = 1, ?\Closure $progress = null): array
    {
        $left = array_map(static fn (BreakStroke $stroke): array => [$stroke, new BreakTally()], $this->strokes());
        $done = 0;
        $all = $this->work(\count($left));
        $from = 0;
        foreach (self::STAGES as [$breaks, $keep]) {
            foreach ($left as $i => [$stroke, $tally]) {
                $tally->add($this->played($stroke, $from, $breaks, $seed));
                $done += $breaks;
                null === $progress ?: $progress($done / $all);
                $left[$i] = [$stroke, $tally];
            }
            usort($left, static fn (array $a, array $b): int => $b[1]->runOut() <=> $a[1]->runOut());
            $left = \array_slice($left, 0, $keep);
            $from += $breaks;
        }
        $stated = [];
        foreach ($left as [$stroke]) {
            $stated[] = [$stroke, $this->played($stroke, 0, self::STATED, $seed + 1)];
            $done += self::STATED;
            null === $progress ?: $progress(min(1.0, $done / $all));
        }
        usort($stated, static fn (array $a, array $b): int => $b[1]->runOut() <=> $a[1]->runOut());

        return $stated;
    }

    private function played(BreakStroke $stroke, int $from, int $breaks, int $seed): BreakTally
    {
        try {
            return (new BreakTrials($this->game, $stroke, $this->player, $this->solver, $this->rules))->play($from, $breaks, $seed);
        } catch (IllegalStroke) {
            return new BreakTally();
        }
    }

    /** Breaks in all. */
    private function work(int $strokes): int
    {
        $sum = 0;
        foreach (self::STAGES as [$breaks, $keep]) {
            $sum += $breaks * $strokes;
            $strokes = min($keep, $strokes);
        }

        return $sum + self::STATED * $strokes;
    }

    /** @return list<BreakStroke> */
    private function strokes(): array
    {
        $strokes = [];
        foreach (self::PLACES as $aside) {
            foreach (self::LONG as $long) {
                foreach (self::SPEEDS as $speed) {
                    foreach (self::AIMS as $aim) {
                        foreach (self::HEIGHTS as $height) {
                            // From farther back half of the mesh is enough.
                            if ($speed <= $this->fastest && (2.0 === $long || 0.0 === $height)) {
                                $strokes[] = new BreakStroke($long, 2.0 + $aside, $aim, $speed, 0.0, $height);
                            }
                        }
                    }
                }
            }
        }

        return $strokes;
    }
}
