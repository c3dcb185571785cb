<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\Core\Breaking\BreakOffTally;
use ZigLane\Core\Breaking\BreakOffTrials;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Table\Equipment;

/**
 * A break shot of straight pool: the ways of cue ball and break ball as they are meant, what stays of the rack, where the cue ball stops.
 */
final readonly class BreakOffDrawing
{
    public TableDrawing $table;

    /** @var list<array{class: string, d: string}> path data */
    public array $routes;

    /** @var list<array{x: float, y: float}> where the cue ball stopped */
    public array $spots;

    /** @var list<array{x: float, y: float, share: int}> racked balls that stay where they are in so many of a hundred */
    public array $stuck;

    public function __construct(BreakOffTrials $trials, BreakOffTally $tally, Equipment $equipment, bool $upright = false)
    {
        $this->table = new TableDrawing(new Rack(Game::StraightPool, $trials->racked, $equipment), $upright);
        $p = $this->table->projection;
        $this->routes = [
            ['class' => 'of-object', 'd' => $p->path($trials->outcome->trajectory($trials->meant->choice->ball)->points())],
            ['class' => 'of-cue', 'd' => $p->path($trials->outcome->trajectory(Ball::Cue)->points())],
        ];
        $spots = $stuck = [];
        foreach ($tally->spots as [$x, $y]) {
            [$x, $y] = $p->xy($x, $y);
            $spots[] = ['x' => $x, 'y' => $y];
        }
        foreach ($tally->stuck as $number => $count) {
            [$x, $y] = $p->point($trials->racked->spot(Ball::from($number)));
            $stuck[] = ['x' => $x, 'y' => $y, 'share' => (int) round(100 * $count / max(1, $tally->shots))];
        }
        $this->spots = $spots;
        $this->stuck = $stuck;
    }
}
