<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Shot\ShotSolver;

/** Brings a plan, or what was really shot of it, into its sheet. */
final readonly class PlanAdopter
{
    public function __construct(private SheetEditor $editor)
    {
    }

    /**
     * The legs of a plan become the sheet's; with ball in hand the cue ball is placed as planned.
     *
     * @param int $number of the plan, from 0
     */
    public function adopt(RackSheet $sheet, ?PlanJob $job, int $number, int $version): void
    {
        $plan = self::plan($job, $number);
        if (null !== $plan->place && !$sheet->getRack()->layout->has(Ball::Cue)) {
            $this->editor->layOut($sheet, $sheet->getRack()->layout->with(Ball::Cue, $plan->place), $version);
            $version = $sheet->getVersion();
        }
        $this->editor->keepLegs($sheet, $plan->choices(), $version);
    }

    /**
     * The layout after a leg as it was really shot.
     *
     * @param int    $number of the plan, from 0
     * @param int    $leg    from 1
     * @param string $at     where the cue ball stopped, in diamonds
     *
     * @throws Refused   If the spot is not understood, or there is no plan
     * @throws CoreError If the leg cannot be played, or the cue ball cannot lie there
     */
    public function endedUp(RackSheet $sheet, ?PlanJob $job, int $number, int $leg, string $at, int $version): void
    {
        $plan = self::plan($job, $number);
        $shot = $plan->legs[max(1, min($leg, \count($plan->legs))) - 1];
        $final = (new ShotSolver($plan->rack->equipment))->solve($shot->before, $shot->choice)->outcome->final;
        $this->editor->layOut($sheet, $final->with(Ball::Cue, SpotText::spot($at, $plan->rack->equipment->table)), $version);
        $this->editor->keepLegs($sheet, [], $sheet->getVersion());
    }

    private static function plan(?PlanJob $job, int $number): Plan
    {
        return $job?->getPlan()?->plan($number) ?? throw Refused::because('noPlan');
    }
}
