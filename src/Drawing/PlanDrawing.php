<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\App\Analysis\PlanView;
use ZigLane\App\Words\Words;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\PositionPlay\ZoneLevel;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Stroke\Hand;

/**
 * A plan as drawn: of the chosen leg the route, the zone of the next ball, and the lane with its two ends; the route of the next leg
 * faint; of the others where the cue ball stops.
 *
 * @phpstan-type Stop array{number: int, x: float, y: float, isHere: bool}
 */
final readonly class PlanDrawing
{
    /** Frames of the animation in a second of play. */
    private const FRAMES = 30;
    /** Width of a letter of a label, millimetres. */
    private const WIDE = 20;
    /** How true routes of other legs are drawn, metres. */
    private const TRUE = 0.002;

    public TableDrawing $table;
    public ?ShotDrawing $shot;
    /** @var list<string> the zone of the next ball and its darker parts, as path data */
    public array $zones;
    /** The stops of the lane, as path data; empty for none. */
    public string $lane;
    /** @var list<array{x: float, y: float, width: int, text: string}> what ends the lane on the slow and on the hard side */
    public array $laneLabels;
    /** @var list<Stop> where the cue ball stops after each leg */
    public array $stops;
    /** @var list<array{number: int, d: string}> the routes of the other legs */
    public array $routes;
    /** The rack of straight pool that will be set up, as path data; empty in other games. */
    public string $rack;

    public function __construct(private PlanView $view, Words $words, bool $upright, ?Hand $hand = null)
    {
        $this->table = new TableDrawing($view->rack(), $upright);
        $shot = $view->shot();
        $this->shot = null === $shot ? null : new ShotDrawing($this->table, $shot, $hand);
        $this->zones = array_map(
            fn (ZoneLevel $level): string => implode(
                '',
                array_map(fn (array $ring): string => $this->table->projection->path($ring).'Z', $level->rings),
            ),
            $view->leg->zone,
        );
        $stops = $view->leg->lane->stops ?? [];
        $this->lane = [] === $stops ? '' : $this->table->projection->path($stops).(1 === \count($stops) ? 'h0' : '');
        $this->laneLabels = $this->labels($words);
        $this->stops = $this->stopsOf();
        $this->routes = $this->routesOf();
        $equipment = $view->plan->rack->equipment;
        $this->rack = $view->plan->rack->game->rules()->countsBalls
            ? $this->table->projection->path(Racking::outline($equipment)).'Z'
            : '';
    }

    /** @return list<array{x: float, y: float, width: int, text: string}> */
    private function labels(Words $words): array
    {
        $lane = $this->view->leg->lane;
        if (null === $lane || \count($lane->stops) < 2) {
            return [];
        }
        $overlay = new Overlay($this->table->projection);
        foreach ([[$lane->stops[0], $lane->short], [$lane->stops[\count($lane->stops) - 1], $lane->long]] as [$spot, $why]) {
            if (null !== $why) {
                $overlay->label($spot, $words->of(new Fact(str_replace('lane.', 'laneMark.', $why->kind), $why->values)));
            }
        }

        return array_map(
            fn (array $label): array => [
                'x' => $this->inside($label['x'], self::WIDE * mb_strlen($label['text'])),
                'y' => $label['y'],
                'width' => self::WIDE * mb_strlen($label['text']) + 30,
                'text' => $label['text'],
            ],
            $overlay->labels,
        );
    }

    /** A label's middle, so that it does not run off the cloth. */
    private function inside(float $x, float $width): float
    {
        return max(0.5 * $width, min($this->table->width - 0.5 * $width, $x));
    }

    /** @return list<Stop> */
    private function stopsOf(): array
    {
        $stops = [];
        foreach ($this->view->plan->legs as $leg) {
            if (null !== $leg->landing) {
                [$x, $y] = $this->table->projection->point($leg->landing);
                $stops[] = ['number' => $leg->number, 'x' => $x, 'y' => $y, 'isHere' => $leg->number === $this->view->number];
            }
        }

        return $stops;
    }

    /** @return list<array{number: int, d: string}> */
    private function routesOf(): array
    {
        $routes = [];
        foreach ($this->view->shots as $i => $shot) {
            if (null !== $shot && $i + 1 !== $this->view->number) {
                $routes[] = [
                    'number' => $i + 1,
                    'd' => $this->table->projection->path($shot->outcome->trajectory(Ball::Cue)->points(self::TRUE)),
                ];
            }
        }

        return $routes;
    }

    /** What moves in the chosen leg, for the animation: by ball a list of x, y at each frame, as JSON. */
    public function frames(): string
    {
        $shot = $this->view->shot();

        return json_encode(
            ['rate' => self::FRAMES, 'balls' => (object) (null === $shot ? [] : $this->moving($shot))],
            \JSON_THROW_ON_ERROR | \JSON_HEX_TAG,
        );
    }

    /** @return array<string, array{frames: list<array{float, float}>, drops: int|null}> */
    private function moving(SolvedShot $shot): array
    {
        $balls = [];
        foreach ($shot->outcome->trajectories as $number => $trajectory) {
            if (!$trajectory->moves()) {
                continue;
            }
            $frames = [];
            for ($i = 0, $n = (int) ceil($shot->outcome->duration() * self::FRAMES); $i <= $n; ++$i) {
                [$x, $y] = $this->table->projection->point($trajectory->at($i / self::FRAMES));
                $frames[] = [round($x, 1), round($y, 1)];
            }
            $ball = Ball::from($number);
            $balls[$ball->label()] = [
                'frames' => $frames,
                'drops' => null !== $shot->outcome->pocketOf($ball) ? (int) ceil($trajectory->end() * self::FRAMES) : null,
            ];
        }

        return $balls;
    }
}
