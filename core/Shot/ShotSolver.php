<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Error\IllegalLayout;
use ZigLane\Core\Error\NoAim;
use ZigLane\Core\Error\SimulationLimit;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\TableProfile;

/** Answers a called shot on a given table: aims it in the full model and plays it among all balls. */
final readonly class ShotSolver
{
    private AimFinder $aims;
    private EventSimulator $simulator;

    public function __construct(TableProfile $table, BallSet $balls, private Cue $cue)
    {
        $this->aims = new AimFinder($table, $balls, $cue);
        $this->simulator = new EventSimulator($table, $balls);
    }

    /**
     * @throws IllegalLayout   If the cue ball or the called ball is not on the table, or balls cannot lie so
     * @throws NoAim           If no direction sends the ball to the middle of the pocket
     * @throws SimulationLimit If the simulation meets its bound
     */
    public function solve(Layout $layout, ShotChoice $choice): SolvedShot
    {
        $aim = $this->aims->find($layout->spot(Ball::Cue), $layout->spot($choice->ball), $choice);
        $strike = $choice->stroke->strike($aim->direction, $this->cue->endMassRatio);

        return new SolvedShot($layout, $choice, $aim, $strike, $this->simulator->play($layout, $strike));
    }
}
