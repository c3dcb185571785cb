<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\App\Analysis\Projection;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Practice\Area;
use ZigLane\Core\Practice\Drill;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/** A drill's set-up on its table, with what its balls have to reach. */
final readonly class DrillDrawing
{
    public TableDrawing $table;

    /**
     * @var list<array{
     *     path: string, rings: list<array{x: float, y: float, r: float, points: string}>, isCue: bool, label: string, x: float, y: float
     * }>
     */
    public array $targets;

    /** @var list<string> paths of areas in which balls are drawn or placed */
    public array $areas;

    public function __construct(Drill $drill, Layout $layout, Equipment $equipment, bool $upright = false)
    {
        $this->table = new TableDrawing(new Rack(Game::StraightPool, $layout, $equipment), $upright);
        $targets = $areas = [];
        foreach ($drill->targets as $target) {
            if (null !== $target->area) {
                [$long, $short, $toLong, $toShort] = $target->area->bounds();
                [$x, $y] = $this->point(0.5 * (max(0.0, $long) + min(8.0, $toLong)), 0.5 * (max(0.0, $short) + min(4.0, $toShort)));
                $ball = $target->ball ?? Ball::Cue;
                $targets[] = [
                    'path' => $this->path($target->area),
                    'rings' => $this->rings($target->area),
                    'isCue' => Ball::Cue === $ball,
                    'label' => Ball::Cue === $ball ? '' : $ball->label(),
                    'x' => $x,
                    'y' => $y,
                ];
            }
        }
        foreach ($drill->places as $place) {
            if (null !== $place->area) {
                $areas[] = $this->path($place->area);
            }
        }
        $this->targets = $targets;
        $this->areas = $areas;
    }

    private function path(Area $area): string
    {
        if ([] === $area->corners) {
            return '';
        }
        // What reaches past a nose line is drawn to it.
        $corners = array_map(
            fn (array $corner): string => implode(' ', array_map(
                Projection::number(...),
                $this->point(max(0.0, min(8.0, $corner[0])), max(0.0, min(4.0, $corner[1]))),
            )),
            $area->corners,
        );

        return 'M'.implode('L', $corners).'Z';
    }

    /** @return list<array{x: float, y: float, r: float, points: string}> the outermost first */
    private function rings(Area $area): array
    {
        if (null === $area->centre) {
            return [];
        }
        [$x, $y] = $this->point(...$area->centre);
        $rings = [];
        foreach (array_reverse($area->rings) as [$radius, $points]) {
            $rings[] = [
                'x' => $x,
                'y' => $y,
                'r' => round(1000 * $radius * $this->table->rack->equipment->table->diamond(), 1),
                'points' => Projection::number($points),
            ];
        }

        return $rings;
    }

    /** @return array{float, float} */
    private function point(float $long, float $short): array
    {
        return $this->table->projection->point(Spot::diamonds($long, $short, $this->table->rack->equipment->table));
    }
}
