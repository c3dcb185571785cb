<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\App\Analysis\Projection;
use ZigLane\Core\Motion\Trajectory;
use ZigLane\Core\Table\Spot;

/** What is laid over a table plan: areas, lines, dots and labels in the units of its projection. */
final class Overlay
{
    /** @var list<array{d: string, class: string}> */
    public array $areas = [];

    /** @var list<array{d: string, class: string, for: string}> */
    public array $lines = [];

    /** @var list<array{x: float, y: float, r: float, class: string}> */
    public array $dots = [];

    /** @var list<array{x: float, y: float, text: string, for: string}> */
    public array $labels = [];

    public function __construct(private readonly Projection $projection)
    {
    }

    /** @param list<list<Spot>> $polygons */
    public function area(array $polygons, string $class): void
    {
        $d = '';
        foreach ($polygons as $polygon) {
            $d .= $this->projection->path($polygon).'Z';
        }
        if ('' !== $d) {
            $this->areas[] = ['d' => $d, 'class' => $class];
        }
    }

    public function route(Trajectory $trajectory, string $class, string $for): void
    {
        $this->lines[] = [
            'd' => $this->projection->path($trajectory->points(0.002)),
            'class' => $class,
            'for' => $for,
        ];
    }

    /** @param list<Spot> $stops */
    public function lane(array $stops): void
    {
        $this->lines[] = [
            'd' => $this->projection->path($stops).(1 === \count($stops) ? 'h0' : ''),
            'class' => 'of-lane',
            'for' => '',
        ];
    }

    public function line(Spot $from, Spot $to, string $class, string $for = ''): void
    {
        $this->lines[] = ['d' => $this->projection->path([$from, $to]), 'class' => $class, 'for' => $for];
    }

    public function dot(Spot $spot, float $millimetres, string $class): void
    {
        [$x, $y] = $this->projection->point($spot);
        $this->dots[] = ['x' => $x, 'y' => $y, 'r' => $millimetres, 'class' => $class];
    }

    /** A label beside a spot; one that would lie on an earlier label is moved away from it. */
    public function label(Spot $spot, string $text, string $for = ''): void
    {
        [$x, $y] = $this->projection->point($spot);
        $wide = 26 * mb_strlen($text) + 30;
        foreach ([[0, -62], [0, 62], [0, -122], [0, 122], [150, 0], [-150, 0], [150, -90], [-150, 90], [0, -182], [0, 182]] as [$dx, $dy]) {
            $free = true;
            foreach ($this->labels as $other) {
                $room = 0.5 * ($wide + 26 * mb_strlen($other['text']) + 30);
                $free = $free && (abs($other['x'] - $x - $dx) > $room || abs($other['y'] - $y - $dy) > 56);
            }
            if ($free) {
                break;
            }
        }
        $this->labels[] = ['x' => $x + $dx, 'y' => $y + $dy, 'text' => $text, 'for' => $for];
    }
}
