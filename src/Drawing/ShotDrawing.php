<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\Core\Motion\Event;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Motion\Phase;
use ZigLane\Core\Motion\Trajectory;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Stroke\Hand;
use ZigLane\Core\Table\Spot;

/**
 * A shot as drawn over its table plan. Pieces of a path are parabolas, drawn as the quadratic Bezier curves that they exactly
 * are.
 */
final readonly class ShotDrawing
{
    /** Time between the ticks across a route, seconds. */
    public const TICK = 0.25;

    /** @var list<array{ball: int, label: string, sliding: string, rolling: string}> */
    public array $routes;

    /** Ticks across the cue ball's route, as path data. */
    public string $ticks;

    /** @var list<array{text: string, rail: string, x: float, y: float, boxX: float, boxY: float}> */
    public array $flags;

    /** @var array{x: float, y: float} */
    public array $ghost;

    /** Line of aim from the cue ball to the ghost ball, and the object ball's line to the middle of the mouth, as path data. */
    public string $ghostLine;
    public string $objectLine;

    /** @var array{x: float, y: float, text: string}|null where the cue ball stops */
    public ?array $landing;

    /** @var list<array{number: int, x: float, y: float}> where balls that moved and stay on the table stop */
    public array $ends;

    /** With a player's hand: his cue, and where he stands; null where nobody's is known. */
    public ?StanceDrawing $stance;

    public function __construct(private TableDrawing $plan, SolvedShot $shot, ?Hand $hand = null)
    {
        $this->stance = null === $hand ? null : new StanceDrawing($plan, $shot, $hand);
        $p = $plan->projection;
        $routes = [];
        $ends = [];
        foreach ($shot->outcome->trajectories as $number => $trajectory) {
            if ($trajectory->moves()) {
                $ball = Ball::from($number);
                $routes[] = ['ball' => $number, 'label' => $ball->label(), ...$this->route($trajectory)];
                if (Ball::Cue !== $ball && null === $shot->outcome->pocketOf($ball)) {
                    [$x, $y] = $p->point($trajectory->last());
                    $ends[] = ['number' => $number, 'x' => $x, 'y' => $y];
                }
            }
        }
        $this->routes = $routes;
        $this->ends = $ends;
        $cue = $shot->outcome->trajectory(Ball::Cue);
        $this->ticks = $this->ticksOf($cue);
        $this->flags = $this->flagsOf($shot->cushions());
        $ghost = $shot->aim->ghost;
        [$x, $y] = $p->point($ghost->at);
        $this->ghost = ['x' => $x, 'y' => $y];
        $this->ghostLine = 'M'.$p->text($shot->layout->spot(Ball::Cue)).'L'.$p->text($ghost->at);
        $object = $shot->layout->spot($shot->choice->ball);
        $this->objectLine = 'M'.$p->text($object).'L'.$p->text($object->towards($ghost->objectDirection, $ghost->objectDistance));
        if (null === $shot->scratch()) {
            [$x, $y] = $p->point($cue->last());
            [$long, $short] = $cue->last()->inDiamonds($plan->rack->equipment->table);
            $this->landing = ['x' => $x, 'y' => $y, 'text' => \sprintf('%.1f, %.1f', $long, $short)];
        } else {
            $this->landing = null;
        }
    }

    /** @return array{sliding: string, rolling: string} */
    private function route(Trajectory $trajectory): array
    {
        $paths = ['sliding' => '', 'rolling' => ''];
        $pen = '';
        foreach ($trajectory->segments as $segment) {
            $phase = match ($segment->phase) {
                Phase::Sliding => 'sliding',
                Phase::Rolling => 'rolling',
                default => '',
            };
            if ('' === $phase) {
                continue;
            }
            $p = $this->plan->projection;
            if ($pen !== $phase) {
                $paths[$phase] .= 'M'.$p->text($segment->at($segment->start));
                $pen = $phase;
            }
            $paths[$phase] .= 'Q'.$p->text($segment->control()).' '.$p->text($segment->at($segment->end()));
        }

        return $paths;
    }

    private function ticksOf(Trajectory $trajectory): string
    {
        $p = $this->plan->projection;
        $ticks = '';
        for ($time = self::TICK, $end = $trajectory->end(); $time < $end; $time += self::TICK) {
            if ($trajectory->speed($time) < 0.02) {
                continue;
            }
            $spot = $trajectory->at($time);
            $next = $trajectory->at($time + 1e-4);
            $across = $spot->directionTo($next) + \M_PI_2;
            $ticks .= 'M'.$p->text($spot->towards($across, 0.016)).'L'.$p->text($spot->towards($across, -0.016));
        }

        return $ticks;
    }

    /**
     * The cue ball's cushion contacts as flags on the rails, in order; flags that would lie on each other are moved apart
     * along their rail.
     *
     * @param list<Event> $cushions
     *
     * @return list<array{text: string, rail: string, x: float, y: float, boxX: float, boxY: float}>
     */
    private function flagsOf(array $cushions): array
    {
        $flags = [];
        $taken = [];
        foreach ($cushions as $i => $event) {
            if (EventKind::Cushion !== $event->kind || null === $event->rail) {
                continue;
            }
            $rail = $event->rail;
            $along = $rail->isShort() ? $event->at->y : $event->at->x;
            $place = $this->freePlace($along, $taken[$rail->value] ?? $this->pocketsAlong($rail));
            $taken[$rail->value] ??= $this->pocketsAlong($rail);
            $taken[$rail->value][] = [$place, 0.115];
            [$x, $y] = $this->plan->projection->point($this->onNose($rail, $along, 0.0));
            [$boxX, $boxY] = $this->plan->projection->point($this->onNose($rail, $place, 0.062));
            $flags[] = [
                'text' => \sprintf('%.1f', $along / $this->plan->rack->equipment->table->diamond()),
                'rail' => $rail->value,
                'x' => $x,
                'y' => $y,
                'boxX' => $boxX,
                'boxY' => $boxY,
            ];
        }

        return $flags;
    }

    /**
     * The place nearest to the wished one where a flag covers nothing that is taken.
     *
     * @param list<array{float, float}> $taken places along the rail with the distance to keep from each, metres
     */
    private function freePlace(float $wished, array $taken): float
    {
        foreach ([0, 1, -1, 2, -2, 3, -3, 4, -4, 5, -5, 6, -6] as $shift) {
            $place = $wished + 0.05 * $shift;
            if ([] === array_filter($taken, static fn (array $other): bool => abs($other[0] - $place) < $other[1])) {
                return $place;
            }
        }

        return $wished;
    }

    /** @return list<array{float, float}> the pockets' places along a rail with the room that each needs, metres */
    private function pocketsAlong(Rail $rail): array
    {
        $table = $this->plan->rack->equipment->table;

        return $rail->isShort()
            ? [[0.0, 0.12], [$table->width(), 0.12]]
            : [[0.0, 0.12], [$table->length / 2, 0.125], [$table->length, 0.12]];
    }

    /** The spot at a place along a rail's nose, some way outside it (metres). */
    private function onNose(Rail $rail, float $along, float $out): Spot
    {
        $table = $this->plan->rack->equipment->table;

        return match ($rail) {
            Rail::Head => Spot::metres(-$out, $along),
            Rail::Foot => Spot::metres($table->length + $out, $along),
            Rail::Right => Spot::metres($along, -$out),
            Rail::Left => Spot::metres($along, $table->width() + $out),
        };
    }
}
