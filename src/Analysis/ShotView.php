<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use ZigLane\App\Words\ShotReport;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Shot\LegChain;
use ZigLane\Core\Shot\RouteClearance;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Shot\StrokeName;
use ZigLane\Core\Stroke\CueClearance;

/** All that the shot desk shows of one shot, worked out once a request from one simulation. */
final readonly class ShotView
{
    public SolvedShot $shot;
    public ShotReport $report;
    public CueClearance $clearance;
    /** @var list<array{Ball, float}> balls that the cue ball passes, with the gap in metres */
    public array $passed;
    public StrokeName $name;

    /** @param bool $isSaved whether the sheet keeps just this shot for the leg */
    public function __construct(private LegPlace $place, ShotChoice $choice, public bool $isSaved)
    {
        $equipment = $place->rack->equipment;
        $this->shot = (new ShotSolver($equipment))->solve($place->rack->layout, $choice);
        $this->report = new ShotReport($this->shot, $equipment);
        $this->clearance = CueClearance::of($place->rack->layout, $this->shot->strike->direction, $choice->stroke->tip, $equipment);
        $this->passed = RouteClearance::of($this->shot, $equipment->balls)->passed;
        $this->name = StrokeName::of($this->shot, $equipment);
    }

    /** Whether a leg can follow this one: it is saved, goes on, and leaves something to shoot. */
    public function canGoOn(): bool
    {
        return $this->isSaved
            && $this->shot->goesOn()
            && LegChain::after($this->place->rack, $this->shot->outcome->final)->layout->count() > 1;
    }
}
