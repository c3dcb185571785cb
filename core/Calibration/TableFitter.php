<?php

declare(strict_types=1);

namespace ZigLane\Core\Calibration;

use ZigLane\Core\Fit\FittedNumber;
use ZigLane\Core\Math\Matrix;
use ZigLane\Core\Motion\OutOfTime;

/**
 * Finds the constants of a table from its tests: least squares through the engine with a prior (Gauss and Newton's method, damped after
 * Levenberg and Marquardt), in which the speed of each shot is an unknown of its own that is eliminated (Schur's complement). A speed is
 * looked for over its whole range first, because a shot that came to the same spot over one cushion more is another minimum. Values and
 * intervals are those of the tables that the tests allow (Ensemble). A constant of which the tests say little is left at what it was and
 * named.
 *
 * Cost: twenty starts of a few rounds of (2 p + 3) n shots for p constants and n tests, and the Ensemble; 36 tests take 15 to 30 seconds.
 */
final class TableFitter
{
    /** Chains are few and do not reach all corners: intervals are so much wider than what they hold. */
    private const WIDER = 1.2;
    /** A constant is taught where its spread falls below this share of what it was before. */
    private const TAUGHT = 0.7;
    /** Speeds that are looked over, m/s, and how many; before any test they are a normal distribution of their logarithm. */
    private const SPEEDS = [0.15, 9.0, 64];
    private const USUAL_SPEED = 1.8;
    private const SPEED_SPREAD = 0.8;
    /** Tables from which the search sets out, spread evenly over what is known before (Halton's sequence), and how far, in spreads. */
    private const STARTS = 20;
    private const STARTS_SLOPED = 9;
    private const ABOUT = 1.3;
    private const PRIMES = [2, 3, 5, 7, 11, 13, 17, 19, 23, 29];
    private const SHORT = 5;
    /** So many of them are gone on with. */
    private const KEPT = 3;
    private const LONG = 30;
    private const AGAIN = 4;
    /** How finely derivatives are taken: of a constant a share of its spread, of the logarithm of a speed. */
    private const STEP = 0.3;
    private const SPEED_STEP = 0.01;
    /** A slope is believed where it explains so much of the squares (a chance of one in a hundred with two constants). */
    private const SLOPE = 9.21;
    /** And a table is explained badly where the squares come to so many for each number that was measured. */
    private const BADLY = 1.35;
    /** A test of which one number lies farther off than this contradicts the others, standard deviations. */
    private const CONTRADICTS = 3.5;

    private int $shots = 0;

    /**
     * @param list<TableTest>              $tests
     * @param (\Closure(float): bool)|null $goesOn told how far it is, 0 to 1, once a round; false: it is no longer wanted
     * @param int                          $budget shots that the tables which the tests allow may cost about
     */
    public function __construct(
        private readonly Base $base,
        private readonly array $tests,
        private readonly ?\Closure $goesOn = null,
        private readonly int $budget = Ensemble::SHOTS,
    ) {
    }

    /** @throws OutOfTime If it is no longer wanted */
    public function fit(int $seed = 1): TableFit
    {
        $found = $this->search($this->base->unknown);
        $best = $found[0];
        $slope = [Parameter::SlopeLong, Parameter::SlopeShort];
        if ($this->base->mayTilt && !\in_array(Parameter::SlopeLong, $this->base->unknown, true)) {
            $sloped = static fn (State $one): State => new State(
                [...$one->parameters, ...$slope], [...$one->scaled, 0.0, 0.0], $one->speeds, $one->cost,
            );
            $count = array_sum(array_map(Prediction::count(...), $this->tests));
            // A level table that explains the tests badly is no place to set out from: the search begins anew.
            $tilted = $best->cost > self::BADLY * $count
                ? $this->search([...$this->base->unknown, ...$slope], self::STARTS_SLOPED)
                : [$this->improved($sloped($best), self::LONG), ...array_map($sloped, $found)];
            if ($best->cost - $tilted[0]->cost > self::SLOPE) {
                $found = $tilted;
            }
        }
        $best = $found[0];
        $curvature = $this->curvature($best);
        $ensemble = new Ensemble(
            $this->tests,
            $curvature,
            $this->prediction(...),
            $this->priorOf(...),
            self::speedPrior(...),
            self::speedFor(...),
            fn (float $share) => $this->goesOn(0.4 + 0.6 * $share),
            // A shot on a slope takes three times as long.
            (int) (\in_array(Parameter::SlopeLong, $best->parameters, true) ? 0.5 * $this->budget : $this->budget),
        );
        $states = $ensemble->states($found, $seed);
        $this->shots += $ensemble->shots;

        return $this->told($best, $states, $curvature);
    }

    /**
     * @param list<State> $states tables that the tests allow
     */
    private function told(State $best, array $states, Curvature $curvature): TableFit
    {
        $parameters = $best->parameters;
        $left = $numbers = [];
        [$means, $spreads] = self::moments($states, \count($parameters));
        foreach ($parameters as $i => $parameter) {
            $before = $parameter->spreadWithin($this->base->centre($parameter));
            if (!$parameter->isSlope() && \sqrt($spreads[$i][$i]) > self::TAUGHT * $before) {
                $left[$i] = $parameter;
            }
        }
        $means = $this->beside($means, $spreads, $left, $parameters);
        $kept = array_diff_key($parameters, $left);
        foreach ($kept as $i => $parameter) {
            $values = array_map(static fn (State $one): float => $one->scaled[$i], $states);
            sort($values);
            $middle = $means[$i];
            $edge = static fn (float $share): float => $middle
                + self::WIDER * ($values[(int) round($share * (\count($values) - 1))] - $middle);
            $numbers[$parameter->value] = new FittedNumber(
                $parameter->value($means[$i]),
                [$parameter->value($edge(0.05)), $parameter->value($edge(0.95))],
                $this->base->prior($parameter),
                true,
            );
        }
        $fitted = $this->withSpeeds(array_values($kept), array_map(static fn (int $i): float => $means[$i], array_keys($kept)));

        return new TableFit(
            $numbers,
            array_values($left),
            array_map(exp(...), $fitted->speeds),
            $this->contradicting($best),
            $curvature->alike($parameters),
            $this->base->with($fitted->values()),
            $this->shots,
        );
    }

    /**
     * Mean and covariance.
     *
     * @param list<State> $states
     *
     * @return array{list<float>, list<list<float>>}
     */
    private static function moments(array $states, int $count): array
    {
        $means = $spreads = [];
        for ($i = 0; $i < $count; ++$i) {
            $means[] = array_sum(array_map(static fn (State $one): float => $one->scaled[$i], $states)) / max(1, \count($states));
        }
        for ($i = 0; $i < $count; ++$i) {
            $row = [];
            for ($j = 0; $j < $count; ++$j) {
                $row[] = array_sum(array_map(
                    static fn (State $one): float => ($one->scaled[$i] - $means[$i]) * ($one->scaled[$j] - $means[$j]),
                    $states,
                )) / max(1, \count($states));
            }
            $spreads[] = $row;
        }

        return [$means, $spreads];
    }

    /**
     * The means of constants beside some that stay what they were (by linear regression).
     *
     * @param list<float>           $means
     * @param list<list<float>>     $spreads
     * @param array<int, Parameter> $left       those that stay, by place
     * @param list<Parameter>       $parameters
     *
     * @return list<float>
     */
    private function beside(array $means, array $spreads, array $left, array $parameters): array
    {
        if ([] === $left) {
            return $means;
        }
        $places = array_keys($left);
        $matrix = $off = [];
        foreach ($places as $i) {
            $matrix[] = array_map(static fn (int $j): float => $spreads[$i][$j] + ($i === $j ? 1e-12 : 0.0), $places);
            $off[] = $this->base->centre($parameters[$i]) - $means[$i];
        }
        $weights = Matrix::solved($matrix, $off);
        foreach (array_keys($means) as $i) {
            if (!isset($left[$i])) {
                foreach ($places as $k => $j) {
                    $means[$i] += $spreads[$i][$j] * $weights[$k];
                }
            }
        }

        return $means;
    }

    /**
     * A table with the speeds that suit it best.
     *
     * @param list<Parameter> $parameters
     * @param list<float>     $scaled
     */
    private function withSpeeds(array $parameters, array $scaled): State
    {
        return $this->valued(new State($parameters, $scaled, $this->speedsFor($parameters, $scaled), \INF));
    }

    private function goesOn(float $share): void
    {
        if (null !== $this->goesOn && !($this->goesOn)($share)) {
            throw new OutOfTime();
        }
    }

    /** A number between 0 and 1 of a sequence that fills it evenly. */
    private static function halton(int $i, int $base): float
    {
        $share = 1.0;
        for ($number = 0.0; $i > 0; $i = intdiv($i, $base)) {
            $share /= $base;
            $number += $share * ($i % $base);
        }

        return $number;
    }

    /**
     * @param list<Parameter> $unknown
     * @param positive-int    $starts
     *
     * @return non-empty-list<State> the best first
     */
    private function search(array $unknown, int $starts = self::STARTS): array
    {
        $found = [];
        for ($start = 0; $start < $starts; ++$start) {
            $this->goesOn(0.4 * $start / $starts);
            $scaled = [];
            foreach ($unknown as $i => $parameter) {
                $away = 0 === $start ? 0.0 : self::ABOUT * $parameter->spread() * (2 * self::halton($start, self::PRIMES[$i]) - 1);
                $scaled[] = $parameter->scaled($parameter->value($this->base->centre($parameter) + $away));
            }
            $found[] = $this->improved($this->withSpeeds($unknown, $scaled), self::SHORT);
        }
        usort($found, static fn (State $a, State $b): int => $a->cost <=> $b->cost);
        $best = array_map($this->settled(...), \array_slice($found, 0, self::KEPT));
        $found = [...$best, ...\array_slice($found, self::KEPT)];
        usort($found, static fn (State $a, State $b): int => $a->cost <=> $b->cost);

        return $found;
    }

    /** To the end, with every speed looked for again on the way. */
    private function settled(State $best): State
    {
        for ($i = 0; $i < self::AGAIN; ++$i) {
            $best = $this->improved($best, self::LONG);
            $other = $this->improved($this->withSpeeds($best->parameters, $best->scaled), self::LONG);
            if ($other->cost > $best->cost - 0.1) {
                break;
            }
            $best = $other;
        }

        return $best;
    }

    /**
     * The speeds that suit a table best, each looked for over its whole range.
     *
     * @param list<Parameter> $unknown
     * @param list<float>     $scaled
     *
     * @return list<float> logarithms
     */
    private function speedsFor(array $unknown, array $scaled): array
    {
        $prediction = $this->prediction(new State($unknown, $scaled, [], \INF));
        $speeds = [];
        foreach ($this->tests as $test) {
            $speeds[] = self::speedFor($prediction, $test);
        }
        $this->shots += $prediction->shots();

        return $speeds;
    }

    /** The logarithm of the speed with which a test goes best with a table, over the whole range. */
    private static function speedFor(Prediction $prediction, TableTest $test): float
    {
        if ($test->isSpeedKnown) {
            return log($test->strike->speed);
        }
        [$slowest, $fastest, $steps] = self::SPEEDS;
        $cost = static fn (float $log): float => $prediction->squares($test, exp($log)) + self::speedPrior($log);
        $costs = [];
        for ($i = 0; $i <= $steps; ++$i) {
            $costs[] = $cost(log($slowest) + $i / $steps * log($fastest / $slowest));
        }
        asort($costs);
        $found = [];
        foreach (\array_slice(array_keys($costs), 0, 3) as $i) {
            $found[] = self::least($cost, log($slowest) + $i / $steps * log($fastest / $slowest), log($fastest / $slowest) / $steps);
        }
        usort($found, static fn (array $a, array $b): int => $a[1] <=> $b[1]);

        return $found[0][0];
    }

    /**
     * The least value of a function near a place, by golden sections.
     *
     * @param \Closure(float): float $of
     *
     * @return array{float, float} place and value
     */
    private static function least(\Closure $of, float $at, float $width): array
    {
        $golden = 0.6180339887;
        [$from, $to] = [$at - $width, $at + $width];
        [$a, $b] = [$to - $golden * ($to - $from), $from + $golden * ($to - $from)];
        [$ofA, $ofB] = [$of($a), $of($b)];
        for ($i = 0; $i < 11; ++$i) {
            if ($ofA < $ofB) {
                [$to, $b, $ofB] = [$b, $a, $ofA];
                $a = $to - $golden * ($to - $from);
                $ofA = $of($a);
            } else {
                [$from, $a, $ofA] = [$a, $b, $ofB];
                $b = $from + $golden * ($to - $from);
                $ofB = $of($b);
            }
        }

        return $ofA < $ofB ? [$a, $ofA] : [$b, $ofB];
    }

    /** Damped steps until they gain nothing. */
    private function improved(State $state, int $rounds): State
    {
        $damping = 0.01;
        for ($round = 0; $round < $rounds; ++$round) {
            $curvature = $this->curvature($state);
            $before = $state->cost;
            for ($try = 0; $try < 8; ++$try) {
                $next = $this->valued($curvature->step($state, $damping));
                if ($next->cost < $state->cost) {
                    $state = $next;
                    $damping = max(1e-5, 0.2 * $damping);
                    break;
                }
                $damping *= 5;
            }
            if ($before - $state->cost < 1e-3) {
                break;
            }
        }

        return $state;
    }

    private function curvature(State $state): Curvature
    {
        $count = \count($state->parameters);
        $here = $this->prediction($state);
        $curvature = new Curvature($state->parameters, array_map($this->base->centre(...), $state->parameters), $state->scaled);
        $near = [];
        for ($i = 0; $i < $count; ++$i) {
            $step = self::STEP * $state->parameters[$i]->spread();
            $near[] = [$this->prediction($state->moved($i, -$step)), $this->prediction($state->moved($i, $step)), 2 * $step];
        }
        foreach ($this->tests as $t => $test) {
            $log = $state->speeds[$t];
            $residuals = $here->residuals($test, exp($log));
            $rates = [];
            foreach ($near as [$less, $more, $width]) {
                $rates[] = self::rates($less->residuals($test, exp($log)), $more->residuals($test, exp($log)), $width);
            }
            $bySpeed = $test->isSpeedKnown ? null : self::rates(
                $here->residuals($test, exp($log - self::SPEED_STEP)),
                $here->residuals($test, exp($log + self::SPEED_STEP)),
                2 * self::SPEED_STEP,
            );
            $pull = ($log - log(self::USUAL_SPEED)) / self::SPEED_SPREAD ** 2;
            $curvature->add($residuals, $rates, $bySpeed, $pull, self::SPEED_SPREAD ** -2);
        }
        foreach ([$here, ...array_merge(...array_map(static fn (array $two): array => [$two[0], $two[1]], $near))] as $one) {
            $this->shots += $one->shots();
        }

        return $curvature;
    }

    /** The state with the sum of its squares. */
    private function valued(State $state): State
    {
        $prediction = $this->prediction($state);
        $cost = $this->priorOf($state);
        foreach ($this->tests as $t => $test) {
            $cost += $prediction->squares($test, exp($state->speeds[$t]));
            $cost += $test->isSpeedKnown ? 0.0 : self::speedPrior($state->speeds[$t]);
        }
        $this->shots += $prediction->shots();

        return new State($state->parameters, $state->scaled, $state->speeds, $cost);
    }

    private function priorOf(State $state): float
    {
        $sum = 0.0;
        foreach ($state->parameters as $i => $parameter) {
            $sum += (($state->scaled[$i] - $this->base->centre($parameter)) / $parameter->spread()) ** 2;
        }

        return $sum;
    }

    private function prediction(State $state): Prediction
    {
        return new Prediction($this->base->with($state->values()));
    }

    /** @return array<int, float> tests that do not go with the others, each with how many standard deviations it lies off */
    private function contradicting(State $state): array
    {
        $prediction = $this->prediction($state);
        $off = [];
        foreach ($this->tests as $t => $test) {
            $most = max([0.0, ...array_map(abs(...), $prediction->residuals($test, exp($state->speeds[$t])))]);
            if ($most > self::CONTRADICTS) {
                $off[$t] = $most;
            }
        }
        arsort($off);

        return $off;
    }

    private static function speedPrior(float $log): float
    {
        return (($log - log(self::USUAL_SPEED)) / self::SPEED_SPREAD) ** 2;
    }

    /**
     * @param list<float> $less
     * @param list<float> $more
     *
     * @return list<float>
     */
    private static function rates(array $less, array $more, float $width): array
    {
        return array_map(static fn (float $a, float $b): float => ($b - $a) / $width, $less, $more);
    }
}
