<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\App\Tables\TestEntry;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;

/** A test of a table as it is set up, with where its balls would go on the table as it is known. */
final readonly class TestDrawing
{
    public TableDrawing $table;

    /** @var list<array{ball: int, path: string, x: float, y: float}> the way of each ball that moves, and where it would stop */
    public array $routes;

    /** @var array{x: float, y: float, toX: float, toY: float} the cue, from its tip to a hand's width behind */
    public array $cue;

    public function __construct(TestEntry $entry, bool $upright = false)
    {
        $equipment = $entry->equipment;
        $layout = $entry->test->layout($equipment->table);
        $this->table = new TableDrawing(new Rack(Game::StraightPool, $layout, $equipment), $upright);
        $p = $this->table->projection;
        $strike = $entry->test->strike($equipment->cue->endMassRatio);
        $routes = [];
        foreach ($entry->outcome->trajectories as $number => $trajectory) {
            if ($trajectory->moves()) {
                [$x, $y] = $p->point($trajectory->last());
                $routes[] = ['ball' => $number, 'path' => $p->path($trajectory->points()), 'x' => $x, 'y' => $y];
            }
        }
        $this->routes = $routes;
        $spot = $layout->spot(Ball::Cue);
        [$x, $y] = $p->point($spot->towards($strike->direction + \M_PI, 0.05));
        [$toX, $toY] = $p->point($spot->towards($strike->direction + \M_PI, 0.3));
        $this->cue = ['x' => $x, 'y' => $y, 'toX' => $toX, 'toY' => $toY];
    }
}
