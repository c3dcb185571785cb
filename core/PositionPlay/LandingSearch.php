<?php

declare(strict_types=1);

namespace ZigLane\Core\PositionPlay;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Spot;

/**
 * Which strokes pot a ball and bring the cue ball to a spot or into a zone: some thirty tips by nine speeds are aimed and played, on
 * request to the sides of the pocket and with the cue raised as well; where the stop comes near that the speed is refined; the best of each
 * route (the cushions in order) is then tried with the player's errors.
 */
final class LandingSearch
{
    /** Heights and sides of the tip, as fractions of the radius; those past FARTHEST from the centre are left out. */
    private const OFFSETS = [0.0, 0.15, -0.15, 0.3, -0.3, 0.45, -0.45];
    private const FARTHEST = 0.46;
    private const SPEEDS = [0.75, 1.0, 1.3, 1.7, 2.2, 2.8, 3.5, 4.4, 5.6];
    /** A stop nearer than this counts as there, metres. */
    public const CLOSE = 0.05;
    public const TRIES = 100;
    private const ROUTES = 6;
    /** Landings whose speed is refined. */
    private const REFINED = 24;
    /** A side of the pocket nearer to its middle is as good as the middle, metres. */
    private const LEAST_SIDE = 0.008;
    /** Half of the widest mouth: rail first is a choice for a person. */
    private const MOST_SIDE = 0.065;
    /** Elevations are tried only with so much side: without it they change next to nothing here. */
    private const SWERVES = 0.15;
    /** What a raised cue must gain on a route, share of the tries. */
    private const RAISED = 0.1;

    /** @var array<string, array{Fact, int}> strokes of the last search that came to nothing: what happened and how often */
    private array $failed = [];

    public function __construct(private readonly ShotSolver $solver, private readonly ExecutionErrors $errors)
    {
    }

    /**
     * @param list<float> $asides sides of the pocket that are tried, metres to the left of its middle
     * @param list<float> $raised elevations that are tried besides, with side and into the middle of the pocket, degrees
     *
     * @return list<Landing> those that come within CLOSE, one for each route, the best odds first; if there are none, the nearest alone
     *
     * @throws IllegalLayout If the cue ball cannot lie on the spot
     */
    public function find(
        Layout $layout, Ball $ball, Pocket $pocket, LandingTarget $target, float $elevation = 2.0,
        array $asides = [0.0], array $raised = [],
    ): array {
        if ($target instanceof SpotTarget) {
            $this->assertFree($layout, $ball, $target->spot);
        }
        $this->failed = [];
        $near = $high = [];
        $ways = [
            ...array_map(static fn (float $aside): array => [$aside, $elevation], $asides),
            ...array_map(static fn (float $degrees): array => [0.0, $degrees], $raised),
        ];
        foreach ($ways as [$aside, $degrees]) {
            foreach (self::OFFSETS as $height) {
                foreach (self::OFFSETS as $side) {
                    if (hypot($side, $height) > self::FARTHEST || ($degrees > $elevation && abs($side) < self::SWERVES)) {
                        continue;
                    }
                    foreach ($this->nearest(
                        $layout,
                        new ShotChoice($ball, $pocket, new Stroke(Tip::fractions($side, $height), self::SPEEDS[0], $degrees), $aside),
                        $target,
                    ) as $landing) {
                        $degrees > $elevation ? $high[] = $landing : $near[] = $landing;
                    }
                }
            }
        }
        $near = $this->refinedNearest($layout, $near, $target, self::REFINED);
        $high = $this->refinedNearest($layout, $high, $target, intdiv(self::REFINED, 2));
        $found = [...self::close($near), ...self::close($high)];
        if ([] === $found) {
            $all = [...$near, ...$high];
            usort($all, static fn (Landing $a, Landing $b): int => $a->off <=> $b->off);

            return array_map(fn (Landing $landing): Landing => $this->tried($landing, $target), \array_slice($all, 0, 1));
        }
        $best = [];
        foreach ($found as $landing) {
            $landing = $this->tried($landing, $target);
            $key = Landing::keyOf($landing->route);
            if (!isset($best[$key]) || $this->rank($landing, $elevation) > $this->rank($best[$key], $elevation)) {
                $best[$key] = $landing;
            }
        }
        usort($best, static fn (Landing $a, Landing $b): int => $b->there <=> $a->there);

        return \array_slice($best, 0, self::ROUTES);
    }

    /**
     * The nearest of some landings, each at the speed that comes nearest.
     *
     * @param list<Landing> $near
     *
     * @return list<Landing>
     */
    private function refinedNearest(Layout $layout, array $near, LandingTarget $target, int $count): array
    {
        usort($near, static fn (Landing $a, Landing $b): int => $a->off <=> $b->off);

        return array_map(fn (Landing $landing): Landing => $this->refined($layout, $landing, $target), \array_slice($near, 0, $count));
    }

    /**
     * Those that are there, of each route the three nearest: of several tips on one route the odds decide.
     *
     * @param list<Landing> $landings
     *
     * @return list<Landing>
     */
    private static function close(array $landings): array
    {
        usort($landings, static fn (Landing $a, Landing $b): int => $a->off <=> $b->off);
        $close = $count = [];
        foreach ($landings as $landing) {
            $key = Landing::keyOf($landing->route);
            $count[$key] = ($count[$key] ?? 0) + 1;
            if ($landing->off <= self::CLOSE && $count[$key] <= 3 && \count($close) < 2 * self::ROUTES) {
                $close[] = $landing;
            }
        }

        return $close;
    }

    /** Odds of the landing; a cue that is raised for it must gain something, since it makes a player less sure than his errors say. */
    private function rank(Landing $landing, float $elevation): float
    {
        return $landing->there - ($landing->shot->choice->stroke->elevation > $elevation ? self::RAISED : 0.0);
    }

    private function assertFree(Layout $layout, Ball $ball, Spot $target): void
    {
        foreach ((new LayoutRules($this->solver->equipment))->faults($layout->without($ball)->with(Ball::Cue, $target)) as $fault) {
            throw $fault;
        }
    }

    /**
     * Sides of a pocket that a ball can be sent to besides its middle: half way to where the pocket stops accepting it at medium speed.
     *
     * @return list<float> metres to the left of the middle
     */
    public function sides(Layout $layout, Ball $ball, Pocket $pocket): array
    {
        $line = PotModel::find($layout, $ball, $pocket, $this->solver, $this->errors);
        $object = $layout->spot($ball);
        $far = $object->distanceTo($this->solver->equipment->geometry->at($pocket)->target($object));
        $sides = [];
        foreach ($line->accepted[1] ?? [] as $piece) {
            foreach ($piece as $edge) {
                $side = 0.5 * $far * tan($edge);
                if (abs($side) > self::LEAST_SIDE) {
                    $sides[] = max(-self::MOST_SIDE, min(self::MOST_SIDE, $side));
                }
            }
        }

        return $sides;
    }

    /**
     * Of one tip at all speeds, the stops that come nearer than those of the speeds beside them.
     *
     * @return list<Landing>
     */
    private function nearest(Layout $layout, ShotChoice $choice, LandingTarget $target): array
    {
        $row = array_map(fn (float $speed): ?Landing => $this->landing($layout, $choice, $speed, $target), self::SPEEDS);
        $near = [];
        foreach ($row as $i => $landing) {
            if (null !== $landing && $landing->off < ($row[$i - 1]->off ?? \INF) && $landing->off <= ($row[$i + 1]->off ?? \INF)) {
                $near[] = $landing;
            }
        }

        return $near;
    }

    private function landing(Layout $layout, ShotChoice $choice, float $speed, LandingTarget $target): ?Landing
    {
        try {
            $shot = $this->solver->solve(
                $layout,
                $choice->withStroke(new Stroke($choice->stroke->tip, $speed, $choice->stroke->elevation)),
            );
        } catch (CoreError) {
            return $this->fails(new Fact('landing.noAim'));
        }
        $scratch = $shot->scratch();
        $struck = $shot->disturbed();
        if (!$shot->isMade()) {
            return $this->fails(new Fact('landing.staysOut', ['ball' => $choice->ball]));
        }
        if (null !== $scratch || [] !== $struck) {
            return $this->fails(
                null !== $scratch
                    ? new Fact('landing.scratch', ['pocket' => $scratch])
                    : new Fact('landing.runsInto', ['ball' => $struck[0]]),
            );
        }

        return new Landing($shot, Landing::routeOf($shot), $target->off($shot->outcome->final->spot(Ball::Cue)));
    }

    private function fails(Fact $why): null
    {
        $this->failed[(string) $why] = [$why, ($this->failed[(string) $why][1] ?? 0) + 1];

        return null;
    }

    /**
     * @return list<array{Fact, int}> what the strokes of the last search that came to nothing did and how often, the most frequent first
     */
    public function failures(): array
    {
        $failed = array_values($this->failed);
        usort($failed, static fn (array $a, array $b): int => $b[1] <=> $a[1]);

        return $failed;
    }

    /** The same tip at the speed that comes nearest: the speed's bracket is narrowed seven times, to a hundredth. */
    private function refined(Layout $layout, Landing $best, LandingTarget $target): Landing
    {
        $step = 0.12 * $best->shot->choice->stroke->speed;
        for ($round = 0; $round < 7 && $best->off > 0.01; ++$round) {
            foreach ([-$step, $step] as $change) {
                $landing = $this->landing($layout, $best->shot->choice, $best->shot->choice->stroke->speed + $change, $target);
                if (null !== $landing && $landing->off < $best->off) {
                    $best = $landing;
                    break;
                }
            }
            $step *= 0.55;
        }

        return $best;
    }

    private function tried(Landing $landing, LandingTarget $target): Landing
    {
        $trials = Trials::of($landing->shot, $this->solver, $this->errors, self::TRIES);

        return new Landing(
            $landing->shot,
            $landing->route,
            $landing->off,
            $trials->chance(),
            $trials->share($target->holds(...)),
            $trials->stayingClear(),
        );
    }
}
