<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Symfony\Component\HttpKernel\Exception\UnprocessableEntityHttpException;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Shot\LegChain;

/** Brings a plan, or what was really shot of it, into its sheet. */
final readonly class PlanAdopter
{
    public function __construct(private SheetEditor $editor)
    {
    }

    /** The legs of a plan become the sheet's; with ball in hand the cue ball is placed as planned. */
    public function take(RackSheet $sheet, ?PlanJob $job, int $plan, int $version): void
    {
        $file = $this->file($job, $plan);
        if (null !== $file->place && !$sheet->getRack()->layout->has(Ball::Cue)) {
            $this->editor->layOut($sheet, $sheet->getRack()->layout->with(Ball::Cue, $file->place), $version);
            $version = $sheet->getVersion();
        }
        $this->editor->run($sheet, $file->legs, $version);
    }

    /**
     * The layout after a leg as it was really shot.
     *
     * @param string $at where the cue ball stopped, in diamonds
     *
     * @throws UnprocessableEntityHttpException If the spot is not understood
     * @throws CoreError                        If the cue ball cannot lie there
     */
    public function endedUp(RackSheet $sheet, ?PlanJob $job, int $plan, int $leg, string $at, int $version): void
    {
        $file = $this->file($job, $plan);
        $rack = $file->placed();
        $solved = LegChain::play($rack, \array_slice($file->legs, 0, max(1, $leg)))->solved;
        if ([] === $solved) {
            throw new UnprocessableEntityHttpException('That leg cannot be played from the table as it is.');
        }
        $layout = $solved[\count($solved) - 1]->outcome->final;
        $this->editor->layOut($sheet, $layout->with(Ball::Cue, SpotText::spot($at, $rack->equipment->table)), $version);
        $this->editor->run($sheet, [], $sheet->getVersion());
    }

    private function file(?PlanJob $job, int $plan): PlanFile
    {
        $document = $job?->getPlan() ?? throw new UnprocessableEntityHttpException('There is no plan on this sheet yet.');

        return PlanFile::plan($document, $plan);
    }
}
