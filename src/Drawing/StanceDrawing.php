<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Stroke\Hand;
use ZigLane\Core\Stroke\Stance;

/** The cue behind the cue ball as seen from above, the bridge hand, and where its player stands. */
final readonly class StanceDrawing
{
    /** Half the width of the cue at its tip and at its butt, metres. */
    private const TIP = 0.0065;
    private const BUTT = 0.016;

    public Fact $told;
    /** The cue, as path data. */
    public string $cue;
    /** @var array{x: float, y: float} */
    public array $bridge;
    /** @var array{x: float, y: float} */
    public array $place;

    public function __construct(TableDrawing $plan, SolvedShot $shot, public Hand $hand)
    {
        $p = $plan->projection;
        $table = $plan->rack->equipment->table;
        $cue = $shot->layout->spot(Ball::Cue);
        $direction = $shot->strike->direction;
        $stance = Stance::of($cue, $direction, $hand, $table);
        $this->told = $stance->told();
        // The tip meets the ball beside its centre, and a raised cue is seen shorter from above.
        $radius = $plan->rack->equipment->balls->radius;
        $on = $cue->towards($direction - \M_PI_2, $shot->strike->side * $radius);
        $tip = $on->towards($direction + \M_PI, $radius);
        $butt = $tip->towards($direction + \M_PI, Stance::CUE * cos($shot->strike->elevation));
        $across = $direction + \M_PI_2;
        $this->cue = $p->path([
            $tip->towards($across, self::TIP),
            $butt->towards($across, self::BUTT),
            $butt->towards($across, -self::BUTT),
            $tip->towards($across, -self::TIP),
        ]).'Z';
        [$x, $y] = $p->point($stance->bridge);
        $this->bridge = ['x' => $x, 'y' => $y];
        [$x, $y] = $p->point($stance->place);
        $this->place = ['x' => $x, 'y' => $y];
    }
}
