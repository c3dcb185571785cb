<?php

declare(strict_types=1);

namespace ZigLane\Core\Calibration;

use ZigLane\Core\Player\Randomness;

/**
 * Tables that the tests allow, each as often as it is likely: a population of chains whose steps are differences of two others
 * (differential evolution Markov chain; ter Braak, Statistics and Computing 16, 2006), so that long and bent ridges, on which constants
 * stand in for each other, are walked along and not across. The speed of each shot follows the table: it is the likeliest one, found by
 * a parabola.
 *
 * Cost: four shots a test and step, in all about as many as SHOTS.
 *
 * @internal
 */
final class Ensemble
{
    private const CHAINS = 20;
    /** Shots that it may cost about, and steps at the least and at the most. */
    public const SHOTS = 500_000;
    private const STEPS = [60, 220];
    /** Share of the steps that is thrown away first. */
    private const WARM = 0.35;
    /** Every tenth step jumps the whole difference: from one ridge to another. */
    private const WHOLE = 10;
    /** A chain that begins worse than this begins at the best. */
    private const WORSE = 14.0;
    /** Of the deviation of a speed, when it is looked for again; and how many of those it may move. */
    private const NEAR = 0.7;
    private const ANEW = 0.3;
    private const FAR = 4.0;

    public int $shots = 0;

    /** @var list<array{list<float>, float}|null> how each test's speed follows the constants (Curvature::follows) */
    private readonly array $follows;

    /**
     * @param list<TableTest>                        $tests
     * @param \Closure(State): Prediction            $predictionOf
     * @param \Closure(State): float                 $priorOf      squares of what is known before
     * @param \Closure(float): float                 $speedPrior   of the logarithm of a speed
     * @param \Closure(Prediction, TableTest): float $speedFor     the logarithm of a test's speed, looked for over its whole range
     */
    public function __construct(
        private readonly array $tests,
        private readonly Curvature $curvature,
        private readonly \Closure $predictionOf,
        private readonly \Closure $priorOf,
        private readonly \Closure $speedPrior,
        private readonly \Closure $speedFor,
        private readonly \Closure $goesOn,
        private readonly int $budget = self::SHOTS,
    ) {
        $this->follows = array_map($curvature->follows(...), array_keys($tests));
    }

    /**
     * @param non-empty-list<State> $starts the best first
     *
     * @return list<State>
     */
    public function states(array $starts, int $seed): array
    {
        $random = new Randomness($seed);
        $chains = $this->begun($starts, $random);
        $count = \count($starts[0]->parameters);
        $kept = [];
        $steps = (int) max(self::STEPS[0], min(self::STEPS[1], $this->budget / (5 * self::CHAINS * max(1, \count($this->tests)))));
        for ($step = 0; $step < $steps; ++$step) {
            ($this->goesOn)($step / $steps);
            foreach (array_keys($chains) as $i) {
                // Ends: a draw of two others fails less often than not.
                do {
                    $a = (int) ($random->share() * self::CHAINS);
                    $b = (int) ($random->share() * self::CHAINS);
                } while ($a === $b || $a === $i || $b === $i);
                $reach = 0 === $step % self::WHOLE ? 1.0 : 2.38 / \sqrt(2 * $count) * (0.3 + 0.9 * $random->share());
                $scaled = [];
                foreach ($starts[0]->parameters as $j => $parameter) {
                    $scaled[] = $chains[$i]->scaled[$j]
                        + $reach * ($chains[$a]->scaled[$j] - $chains[$b]->scaled[$j])
                        + 0.01 * $parameter->spread() * $random->normal();
                }
                // Now and then a shot's speed is looked for anew: it may have come there over a cushion more.
                $anew = $random->share() < self::ANEW ? (int) ($random->share() * \count($this->tests)) : -1;
                $next = $this->at($chains[$i], $scaled, $anew);
                if (null !== $next && 2 * log(max(1e-300, $random->share())) < $chains[$i]->cost - $next->cost) {
                    $chains[$i] = $next;
                }
                if ($step >= self::WARM * $steps) {
                    $kept[] = $chains[$i];
                }
            }
        }

        return $kept;
    }

    /**
     * @param non-empty-list<State> $starts
     *
     * @return list<State>
     */
    private function begun(array $starts, Randomness $random): array
    {
        $root = $this->curvature->deviations();
        $chains = [];
        for ($i = 0; $i < self::CHAINS; ++$i) {
            $from = $starts[$i] ?? $starts[0];
            $from = $from->cost > $starts[0]->cost + self::WORSE ? $starts[0] : $from;
            $draws = array_map(static fn (): float => $random->normal(), $root);
            $scaled = [];
            foreach ($root as $j => $row) {
                $value = $from->scaled[$j];
                foreach ($row as $k => $part) {
                    $value += $part * $draws[$k];
                }
                $scaled[] = $value;
            }
            $chains[] = 0 === $i ? $from : $this->at($from, $scaled) ?? $from;
        }

        return $chains;
    }

    /**
     * A table with the likeliest speeds of its shots; null beyond the limits of the constants.
     *
     * @param list<float> $scaled
     */
    private function at(State $from, array $scaled, int $anew = -1): ?State
    {
        foreach ($from->parameters as $j => $parameter) {
            if (abs($parameter->scaled($parameter->value($scaled[$j])) - $scaled[$j]) > 1e-9) {
                return null;
            }
        }
        $state = new State($from->parameters, $scaled, $from->speeds, \INF);
        $prediction = ($this->predictionOf)($state);
        $cost = ($this->priorOf)($state);
        $speeds = [];
        foreach ($this->tests as $t => $test) {
            $log = $from->speeds[$t];
            $follows = $this->follows[$t];
            if (null === $follows) {
                $cost += $prediction->squares($test, exp($log));
                $speeds[] = $log;
                continue;
            }
            [$rates, $deviation] = $follows;
            foreach ($rates as $j => $rate) {
                $log += $rate * ($scaled[$j] - $from->scaled[$j]);
            }
            $log = $t === $anew ? ($this->speedFor)($prediction, $test) : $log;
            $near = self::NEAR * $deviation;
            $of = fn (float $at): float => $prediction->squares($test, exp($at)) + ($this->speedPrior)($at);
            [$less, $here, $more] = [$of($log - $near), $of($log), $of($log + $near)];
            $bend = $less - 2 * $here + $more;
            $move = $bend > 1e-9 ? 0.5 * $near * ($less - $more) / $bend : ($less < $more ? -$near : $near);
            $move = max(-self::FAR * $deviation, min(self::FAR * $deviation, $move));
            $there = $of($log + $move);
            $best = min($less, $here, $more, $there);
            $speeds[] = $log + match ($best) {
                $there => $move,
                $here => 0.0,
                $less => -$near,
                default => $near,
            };
            $cost += $best;
        }
        $this->shots += $prediction->shots();

        return new State($from->parameters, $scaled, $speeds, $cost);
    }
}
