<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Position\Ball;

/** Takes an option of a position over into the sheet. */
final readonly class OptionTaker
{
    public function __construct(private SheetEditor $editor)
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
}
