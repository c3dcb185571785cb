<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Table\Spot;

/** What was predicted of a position and the plan's first leg, laid over each other. */
final readonly class PredictionDrawing
{
    public TableDrawing $table;

    /** @var array{route: string, x: float, y: float} the cue ball by the plan */
    public array $plan;

    /** @var array{route: string, x: float, y: float}|null the cue ball as it was said; null where that cannot be played */
    public ?array $said;

    /** @var array{x: float, y: float}|null the spot that was pointed at */
    public ?array $spot;

    public function __construct(Rack $rack, ?SolvedShot $said, SolvedShot $best, ?Spot $spot, bool $isUpright)
    {
        $this->table = new TableDrawing($rack, $isUpright);
        $this->plan = $this->way($best);
        $this->said = null === $said ? null : $this->way($said);
        [$x, $y] = null === $spot ? [0.0, 0.0] : $this->table->projection->point($spot);
        $this->spot = null === $spot ? null : ['x' => $x, 'y' => $y];
    }

    /** @return array{route: string, x: float, y: float} */
    private function way(SolvedShot $shot): array
    {
        $cue = $shot->outcome->trajectory(Ball::Cue);
        [$x, $y] = $this->table->projection->point($cue->last());

        return ['route' => $this->table->projection->path($cue->points()), 'x' => $x, 'y' => $y];
    }
}
