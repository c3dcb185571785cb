<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\SimulationLimit;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;

/** Aims called shots on a table in the full model and plays them among all balls: the one place where a simulator and an aimer are made. */
final readonly class ShotSolver
{
    public AimFinder $aims;
    public EventSimulator $simulator;

    public function __construct(public Equipment $equipment = new Equipment())
    {
        $this->aims = new AimFinder($equipment);
        $this->simulator = new EventSimulator($equipment);
    }

    /**
     * @throws IllegalLayout   If the cue ball or the called ball is not on the table, or balls cannot lie so
     * @throws NoAim           If no direction sends the ball to the middle of the pocket
     * @throws SimulationLimit If the simulation meets its bound
     */
    public function solve(Layout $layout, ShotChoice $choice): SolvedShot
    {
        $shot = $this->aimed($layout, $choice);

        return new SolvedShot($layout, $choice, $shot->aim, $shot->strike, $this->simulator->play($layout, $shot->strike));
    }

    /**
     * The aim of a shot and the strike that it takes, not played.
     *
     * @throws IllegalLayout If the cue ball or the called ball is not on the table
     * @throws NoAim         If no direction sends the ball to the middle of the pocket
     */
    public function aimed(Layout $layout, ShotChoice $choice): AimedShot
    {
        $aim = $this->aims->find($layout->spot(Ball::Cue), $layout->spot($choice->ball), $choice);

        return new AimedShot($choice, $aim, $choice->stroke->strike($aim->direction, $this->equipment->cue->endMassRatio));
    }
}
