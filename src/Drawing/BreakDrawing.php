<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\App\Breaking\BreakRequest;
use ZigLane\Core\Breaking\BreakTally;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Table\Spot;

/** A break as it is set up, and where balls come to rest in many of it. */
final readonly class BreakDrawing
{
    public TableDrawing $table;

    /** @var array<string, list<array{x: float, y: float}>> by what: "cue", "first", "money" */
    public array $spots;

    /** @var array{x: float, y: float, toX: float, toY: float} the line of the break */
    public array $line;

    /** @var list<string> the outline of the rack and the head string, as path data */
    public array $marks;

    public function __construct(BreakRequest $request, ?BreakTally $tally, bool $upright = false)
    {
        $equipment = $request->equipment;
        $layout = Layout::empty()->with(Ball::Cue, $request->stroke->spot($equipment));
        $this->table = new TableDrawing(new Rack($request->game, $layout, $equipment), $upright);
        $p = $this->table->projection;
        $drawn = [];
        foreach ($tally->spots ?? [] as $what => $spots) {
            $drawn[$what] = [];
            foreach ($spots as [$x, $y]) {
                [$x, $y] = $p->xy($x, $y);
                $drawn[$what][] = ['x' => $x, 'y' => $y];
            }
        }
        $this->spots = $drawn;
        [$x, $y] = $p->point($request->stroke->spot($equipment));
        $strike = $request->stroke->strike($equipment);
        $foot = Racking::footSpot($equipment->table);
        $distance = $request->stroke->spot($equipment)->distanceTo($foot) - $equipment->balls->diameter();
        [$toX, $toY] = $p->point($request->stroke->spot($equipment)->towards($strike->direction + $strike->squirt(), $distance));
        $this->line = ['x' => $x, 'y' => $y, 'toX' => $toX, 'toY' => $toY];
        $string = 2 * $equipment->table->diamond();
        $this->marks = [
            $p->path(Racking::outline($equipment)).'Z',
            $p->path([Spot::metres($string, 0.0), Spot::metres($string, $equipment->table->width())]),
        ];
    }
}
