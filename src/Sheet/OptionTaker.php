<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Decide\OptionLeg;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Plan\Tally;

/** Takes an option of a position over into the sheet. */
final readonly class OptionTaker
{
    public function __construct(private SheetEditor $editor, private Planner $planner)
    {
    }

    /**
     * The option becomes the sheet's only leg; with ball in hand the cue ball is placed as it wants it.
     *
     * @param int $number of the option, from 0
     *
     * @throws Refused If there is no such option, or it plays no shot
     */
    public function take(RackSheet $sheet, ?PlanJob $job, int $number, int $version): void
    {
        $way = $job?->getOptions()->options->list[$number]->way ?? throw Refused::because('noOption');
        $choice = $way->choice ?? throw Refused::because('noOption');
        if (null !== $way->place && !$sheet->getRack()->layout->has(Ball::Cue)) {
            $this->editor->layOut($sheet, $sheet->getRack()->layout->with(Ball::Cue, $way->place), $version);
            $version = $sheet->getVersion();
        }
        $this->editor->keepLegs($sheet, [$choice], $version);
    }

    /**
     * The option becomes what is shot next at the table.
     *
     * @param int $number of the option, from 0
     * @param int $shots  of the rack so far
     *
     * @throws Refused If there is no such option of the rack as it lies, or it plays no shot
     */
    public function takeAt(ShotRack $rack, ?PlanJob $job, int $number, int $shots): void
    {
        $options = $job?->getOptions()?->options;
        $judged = $options->list[$number] ?? throw Refused::because('noOption');
        $place = $judged->way->place;
        $before = null === $place ? $options->rack->layout : $options->rack->layout->with(Ball::Cue, $place);
        $leg = OptionLeg::of($options->rack, $judged, $before) ?? throw Refused::because('noOption');
        $plan = new Plan($options->rack, $place, $options->rack->group, [$leg], null, new Tally());
        $this->planner->settleAt($rack, new PlanFile([$plan]), $shots);
    }
}
