<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\App\Analysis\Projection;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/** What was drawn to comments, in the chart's own style: spots, arrows, zones. */
final readonly class MarksDrawing
{
    private const HEAD = 34.0;

    /** @var list<array{x: float, y: float}> */
    public array $spots;

    /** @var list<array{d: string, head: string}> path data */
    public array $arrows;

    /** @var list<string> path data */
    public array $zones;

    /** @param list<array{kind: string, points: list<array{float, float}>}> $marks diamonds */
    public function __construct(array $marks, TableProfile $table, bool $isUpright = false)
    {
        $projection = new Projection($table, $isUpright);
        $spots = $arrows = $zones = [];
        foreach ($marks as $mark) {
            $points = array_map(static fn (array $at): Spot => Spot::diamonds($at[0], $at[1], $table), $mark['points']);
            switch ($mark['kind']) {
                case 'spot':
                    [$x, $y] = $projection->point($points[0]);
                    $spots[] = ['x' => $x, 'y' => $y];
                    break;
                case 'arrow':
                    $arrows[] = ['d' => $projection->path($points), 'head' => self::head($projection, $points)];
                    break;
                case 'zone':
                    $zones[] = $projection->path($points).'Z';
            }
        }
        $this->spots = $spots;
        $this->arrows = $arrows;
        $this->zones = $zones;
    }

    /** @param list<Spot> $points */
    private static function head(Projection $projection, array $points): string
    {
        [$fromX, $fromY] = $projection->point($points[\count($points) - 2]);
        [$x, $y] = $projection->point($points[\count($points) - 1]);
        $way = atan2($y - $fromY, $x - $fromX);
        $corner = static fn (float $turn): string => \sprintf(
            '%.1f %.1f', $x - self::HEAD * cos($way + $turn), $y - self::HEAD * sin($way + $turn),
        );

        return \sprintf('M%sL%.1f %.1fL%s', $corner(0.5), $x, $y, $corner(-0.5));
    }
}
