<?php

declare(strict_types=1);

namespace ZigLane\Core\Fit;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/**
 * A player's execution errors from three things that he can try: long straight-in pots, lags, and the same pots as stop
 * shots. Each is played
 * with errors in the full simulation, and the errors that give his results are found by bisection over the same random numbers.
 *
 * Tip placement sideways and up is taken as equal: the stop shots cannot tell them apart.
 */
final readonly class ErrorFit
{
    private const TRIES = 240;
    private const ROUNDS = 11;
    /** Each error is found with the others as they are; twice round they agree. */
    private const PASSES = 2;
    /** Distance between the balls, metres. */
    private const APART = 1.0;

    private EventSimulator $simulator;
    private TableProfile $table;
    private BallSet $balls;
    private Layout $lagFrom;
    private Strike $lag;

    public function __construct(private ShotSolver $solver)
    {
        $this->simulator = $solver->simulator;
        $this->table = $solver->equipment->table;
        $this->balls = $solver->equipment->balls;
        $this->lagFrom = Layout::empty()->with(Ball::Cue, Spot::diamonds(2.0, 2.0, $this->table));
        $this->lag = $this->perfectLag();
    }

    /** The balls of the straight-in pot: the 1 on the centre spot, the cue ball a metre behind it on the line to the far corner. */
    public function straightIn(): Layout
    {
        $centre = Spot::diamonds(4.0, 2.0, $this->table);
        $mouth = $this->solver->equipment->geometry->at(Pocket::FootLeft)->mouth();

        return Layout::empty()->with(Ball::Cue, $centre->towards($mouth->directionTo($centre), self::APART))->with(Ball::One, $centre);
    }

    /**
     * @param float $made  of ten straight-in pots, 0 to 10
     * @param float $lag   how far from the head rail half of the lags stop, metres
     * @param float $drift how far from where it should stop the cue ball drifts in half of the stop shots, metres
     */
    public function fit(float $made, float $lag, float $drift): ExecutionErrors
    {
        $limits = ExecutionErrors::LIMITS;
        [$aim, $speed, $tip] = [0.05, 0.04, 1.0];
        for ($pass = 0; $pass < self::PASSES; ++$pass) {
            $tip = $this->solve(fn (float $tip): float => $this->drift(new ExecutionErrors($aim, $speed, $tip, $tip)), $drift, 0.0, 5.0);
            $speed = $this->solve(
                fn (float $speed): float => $this->lag(new ExecutionErrors($aim, $speed, $tip, $tip)),
                $lag,
                0.0,
                $limits['speed'][2],
            );
            $aim = $this->solve(
                fn (float $aim): float => 10 - $this->made(new ExecutionErrors($aim, $speed, $tip, $tip)),
                10 - $made,
                0.0,
                1.5,
            );
        }

        return new ExecutionErrors(round($aim, 3), round($speed, 3), round($tip, 2), round($tip, 2));
    }

    /** Of ten long straight-in pots, how many a player with these errors makes. */
    public function made(ExecutionErrors $errors): float
    {
        $shot = $this->solver->solve(
            $this->straightIn(),
            new ShotChoice(Ball::One, Pocket::FootLeft, new Stroke(Tip::fractions(0.0, 0.1), 2.0, 2.0)),
        );

        return 10 * Trials::of($shot, $this->solver, $errors, self::TRIES)->chance();
    }

    /** How far from the head rail half of the lags stop, metres. */
    public function lag(ExecutionErrors $errors): float
    {
        return $this->middle($this->lagFrom, $this->lag, $errors, fn (Spot $spot): float => $spot->x - $this->balls->radius);
    }

    /** How far from where it should stop the cue ball drifts in half of the stop shots, metres. */
    public function drift(ExecutionErrors $errors): float
    {
        $layout = $this->straightIn();
        [$cue, $object] = [$layout->spot(Ball::Cue), $layout->spot(Ball::One)];
        $way = $cue->directionTo($object);
        $ghost = $object->towards($way + \M_PI, $this->balls->diameter());
        // Just so much backspin as the cloth takes away on the way: over a metre at this speed.
        $speed = 3.0;
        $drag = $this->table->slide * $this->table->gravity;
        $time = ($speed - \sqrt(max(0.0, $speed ** 2 - 2 * $drag * $cue->distanceTo($ghost)))) / $drag;
        $height = -$drag * $time / $speed;

        return $this->middle(
            $layout,
            Strike::degrees(rad2deg($way), $speed, 0.0, $height, 2.0, $this->solver->equipment->cue->endMassRatio),
            $errors,
            static fn (Spot $spot): float => $spot->distanceTo($ghost),
        );
    }

    /** The lag that dies on the head rail: the speed at which it comes back to it, by bisection. */
    private function perfectLag(): Strike
    {
        $lag = Strike::degrees(0.0, 1.0, 0.0, 0.3, 2.0, $this->solver->equipment->cue->endMassRatio);
        [$slow, $fast] = [0.8, 2.5];
        for ($round = 0; $round < 30; ++$round) {
            $middle = 0.5 * ($slow + $fast);
            $cushions = $this->simulator->play($this->lagFrom, $lag->withSpeed($middle))->cushions(Ball::Cue);
            \count($cushions) > 1 ? $fast = $middle : $slow = $middle;
        }

        return $lag->withSpeed($slow);
    }

    /**
     * The median of something over where the cue ball stops; a try with a miscue or a scratch counts as farthest.
     *
     * @param \Closure(Spot): float $measure metres
     */
    private function middle(Layout $layout, Strike $strike, ExecutionErrors $errors, \Closure $measure): float
    {
        $random = new Randomness(5);
        $rollouts = $this->simulator->rollouts($layout);
        $values = [];
        for ($i = 0; $i < self::TRIES; ++$i) {
            try {
                $ending = $rollouts->play($errors->in($strike)->disturb($strike, $random, $this->balls->radius));
                $values[] = $ending->isScratch() ? \INF : abs($measure($ending->final->spot(Ball::Cue)));
            } catch (IllegalStroke) {
                $values[] = \INF;
            }
        }
        sort($values);

        return $values[intdiv(self::TRIES, 2)];
    }

    /**
     * Where a rising result reaches what was seen; the nearest end where it never does.
     *
     * @param \Closure(float): float $result
     *
     * @throws CoreError If the simulation cannot play the test
     */
    private function solve(\Closure $result, float $seen, float $least, float $most): float
    {
        [$low, $high] = [$least, $most];
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            $middle = 0.5 * ($low + $high);
            $result($middle) < $seen ? $low = $middle : $high = $middle;
        }

        return 0.5 * ($low + $high);
    }
}
