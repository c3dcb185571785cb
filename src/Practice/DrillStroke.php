<?php

declare(strict_types=1);

namespace ZigLane\App\Practice;

use ZigLane\App\Entity\DrillPar;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Practice\Drill;
use ZigLane\Core\Practice\Task;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Table\Equipment;

/** The stroke of a drill's pot: what the drill suggests, else what brought the simulated player of a par the most points. */
final readonly class DrillStroke
{
    private function __construct(public SolvedShot $shot, public bool $isSuggested)
    {
    }

    /** Null where the set-up is not always the same, nothing is potted, or no stroke is known. */
    public static function of(Drill $drill, Layout $layout, Equipment $equipment, ?DrillPar $par): ?self
    {
        if (!$drill->isFixed() || Task::Pot !== $drill->task || !$layout->has(Ball::Cue)) {
            return null;
        }
        $suggested = $drill->suggested();
        $kept = $par?->getStroke();
        try {
            $choice = $suggested ?? (null === $kept ? null : RackFile::shotFromArray($kept));

            return null === $choice ? null : new self((new ShotSolver($equipment))->solve($layout, $choice), null !== $suggested);
        } catch (CoreError) {
            return null;
        }
    }
}
