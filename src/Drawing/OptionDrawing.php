<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\App\Analysis\OptionsView;
use ZigLane\Core\Stroke\Hand;
use ZigLane\Core\Table\Spot;

/** One option as drawn: its routes, and where tries of it left the cue ball and the ball that is met first. */
final readonly class OptionDrawing
{
    public TableDrawing $table;
    public ?ShotDrawing $shot;
    /** @var list<array{x: float, y: float}> where tries left the cue ball */
    public array $cueEnds;
    /** @var list<array{x: float, y: float}> and the ball that is met first, or called */
    public array $ballEnds;

    public function __construct(OptionsView $view, bool $upright, ?Hand $hand = null)
    {
        $this->table = new TableDrawing($view->rack(), $upright);
        $this->shot = null === $view->shot ? null : new ShotDrawing($this->table, $view->shot, $hand);
        $this->cueEnds = $this->ends($view, 0);
        $this->ballEnds = $this->ends($view, 1);
    }

    /** @return list<array{x: float, y: float}> */
    private function ends(OptionsView $view, int $which): array
    {
        $ends = [];
        foreach ($view->chosen->tally->ends as $end) {
            $spot = $end[$which] ?? null;
            if (null !== $spot) {
                [$x, $y] = $this->table->projection->point(Spot::metres(...$spot));
                $ends[] = ['x' => $x, 'y' => $y];
            }
        }

        return $ends;
    }
}
