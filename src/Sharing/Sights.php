<?php

declare(strict_types=1);

namespace ZigLane\App\Sharing;

use ZigLane\App\Analysis\PlanView;
use ZigLane\App\Drawing\DrillDrawing;
use ZigLane\App\Drawing\PlanDrawing;
use ZigLane\App\Drawing\TableDrawing;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Practice\DrillCard;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\App\Sheet\ShotUnits;
use ZigLane\App\Words\TipUnit;
use ZigLane\App\Words\Words;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Practice\SetUp;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Table\Equipment;

/** What a page shows of a run, a drill or a layout to somebody who only looks: nothing of its owner's log or errors. */
final readonly class Sights
{
    public function __construct(private Words $words, private PlanJobRepository $jobs)
    {
    }

    /** @return array<string, mixed> a sheet with its run, where it has one that can be read; else its layout */
    public function sheet(RackSheet $sheet, int $plan, int $leg, bool $isUpright, TipUnit $tips): array
    {
        try {
            $file = $this->jobs->latestOf($sheet)?->getPlan();
        } catch (InvalidFile) {
            $file = null;
        }

        return null === $file ? $this->layout($sheet->getRack(), $isUpright) : $this->run($file, $plan, $leg, $isUpright, $tips);
    }

    /** @return array<string, mixed> as the templates of a run need it */
    public function run(PlanFile $file, int $plan, int $leg, bool $isUpright, TipUnit $tips): array
    {
        $view = new PlanView($file, $plan, $leg);
        $drawing = new PlanDrawing($view, $this->words, $isUpright);

        return [
            'run' => $view,
            'drawing' => $drawing,
            'table' => $drawing->table,
            'units' => new ShotUnits($view->plan->rack->equipment, $tips),
            'zone_least' => Plan::ZONE,
            'chosen' => $view->chosen,
            'leg' => $view->number,
            'here' => $view->leg,
        ];
    }

    /** @return array<string, mixed> as the templates of a layout need it */
    public function layout(Rack $rack, bool $isUpright): array
    {
        return [
            'run' => null, 'drawing' => null, 'here' => null, 'leg' => 1, 'chosen' => 0, 'zone_least' => Plan::ZONE,
            'table' => new TableDrawing($rack, $isUpright),
            'spots' => DrillCard::spotsOf($rack->layout, $rack->equipment->table),
        ];
    }

    /** @return array<string, mixed> as the templates of a drill's set-up need it */
    public function drill(DrillFile $file, int $level, Equipment $equipment, bool $isUpright): array
    {
        $drill = $file->at($level);
        $layout = Layout::empty();
        $error = null;
        try {
            $layout = (new SetUp($drill, $equipment))->attempt(1)->layout;
        } catch (CoreError $e) {
            $error = $this->words->error($e);
        }

        return [
            'drill' => $drill,
            'level' => $level,
            'layout' => $layout,
            'set_up_error' => $error,
            'drawing' => new DrillDrawing($drill, $layout, $equipment, $isUpright),
            'card' => new DrillCard($drill, $equipment),
        ];
    }
}
