<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\Rollouts;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Player\Demands;
use ZigLane\Core\Player\Deviations;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\GhostBall;
use ZigLane\Core\Shot\IndirectSearch;
use ZigLane\Core\Shot\RaisedCue;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Bridge;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Spot;

/**
 * The stroke that brings a player the most points in a try: many as they are meant, the best of them with his errors, and the best of those
 * bettered step by step. What the drill suggests (tip, speed) is kept to.
 *
 * Cost: some hundred shots as meant, `quick` 130; then 12 tries of each of 30 (8 of 6), and some hundred more.
 */
final class StrokeFinder
{
    private const SPEEDS = [0.5, 0.65, 0.85, 1.1, 1.4, 1.75, 2.2, 2.8, 3.6, 4.6];
    private const HEIGHTS = [-0.42, -0.25, -0.1, 0.1, 0.25, 0.42];
    private const SIDES = [0.0, -0.3, 0.3];
    private const FRACTIONS = [-0.95, -0.85, -0.7, -0.5, -0.3, -0.12, 0.0, 0.12, 0.3, 0.5, 0.7, 0.85, 0.95];
    private const QUICK_SPEEDS = [0.6, 0.85, 1.2, 1.7, 2.4];
    private const QUICK_HEIGHTS = [0.35, -0.3];
    /** A cue ball alone: speeds between these, in so many steps. */
    private const LAG = [0.3, 3.2, 60];
    private const ROLLING = 0.4;
    /** Step of the direction for kicks, degrees, and their speeds. */
    private const ROUND = 1.0;
    private const KICKS = [1.4, 2.2, 3.2];
    private const TRIED = 30;
    private const TRIES = 12;
    private const AGAIN = 5;
    private const MORE = 80;
    private const ROUNDS = 3;
    /** Factor of the speed, side, height, turn in radians. */
    private const STEPS = [[1.05, 0, 0, 0], [1 / 1.05, 0, 0, 0], [1, 0.1, 0, 0], [1, -0.1, 0, 0], [1, 0, 0.1, 0], [1, 0, -0.1, 0]];
    private const TURNS = [[1, 0, 0, 0.004], [1, 0, 0, -0.004]];
    private const PLACES = 14;
    /** A straight pot may go to either side of the pocket to make an angle: metres off the middle, and up to which cut, degrees. */
    private const ASIDE = [0.0, -0.022, 0.022];
    private const STRAIGHT = 6.0;

    public function __construct(
        private readonly Drill $drill,
        private readonly ShotSolver $solver,
        private readonly ExecutionErrors $player,
        private readonly Judge $judge,
    ) {
    }

    /** @return Played|null null where nothing at all can be played */
    public function find(Attempt $attempt, int $seed, bool $isQuick = false): ?Played
    {
        $best = null;
        foreach ($this->layouts($attempt, $seed, $isQuick) as [$layout, $place]) {
            $found = $this->from($attempt, $layout, $place, $seed, $isQuick);
            $best = null !== $found && (null === $best || $found->mean > $best->mean) ? $found : $best;
        }

        return $best;
    }

    private function from(Attempt $attempt, Layout $layout, ?Spot $place, int $seed, bool $isQuick): ?Played
    {
        $rollouts = $this->solver->simulator->rollouts($layout);
        $meant = [];
        foreach ($this->strokes($layout, $attempt, $isQuick) as [$strike, $choice]) {
            try {
                $ending = $rollouts->play($strike);
            } catch (CoreError) {
                continue;
            }
            // Of strokes with the same points the nearest to more of them, and then the softest.
            $order = $this->judge->value($attempt, $ending) - 0.01 * $this->judge->shortBy($attempt, $ending) - 0.002 * $strike->speed;
            $meant[] = [$order, $strike, $choice];
        }
        usort($meant, static fn (array $a, array $b): int => $b[0] <=> $a[0]);
        $tried = [];
        foreach (\array_slice($meant, 0, $isQuick ? 6 : self::TRIED) as [$order, $strike, $choice]) {
            $played = new Played($strike, $this->errors($layout, $strike, $choice), $place, $choice);
            $tried[] = $played->withMean($this->mean($rollouts, $attempt, $played, $isQuick ? 8 : self::TRIES, $seed) + 1e-3 * $order);
        }
        $tried = self::ranked($tried);
        if ($isQuick || [] === $tried) {
            return $tried[0] ?? null;
        }
        $again = array_map(
            fn (Played $one): Played => $one->withMean($this->mean($rollouts, $attempt, $one, self::MORE, $seed + 1)),
            \array_slice($tried, 0, self::AGAIN),
        );

        return $this->bettered(self::ranked($again)[0], $rollouts, $attempt, $layout, $seed + 1);
    }

    /** By pattern search with the same errors (Hooke and Jeeves, 1961). */
    private function bettered(Played $best, Rollouts $rollouts, Attempt $attempt, Layout $layout, int $seed): Played
    {
        $size = 1.0;
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            $before = $best->mean;
            foreach (null === $best->choice ? [...self::STEPS, ...self::TURNS] : self::STEPS as [$faster, $side, $height, $turn]) {
                $near = $this->near($best, $layout, $faster ** $size, $size * $side, $size * $height, $size * $turn);
                if (null === $near) {
                    continue;
                }
                $near = $near->withMean($this->mean($rollouts, $attempt, $near, self::MORE, $seed));
                $best = $near->mean > $best->mean ? $near : $best;
            }
            $size = $best->mean > $before ? $size : 0.5 * $size;
        }

        return $best;
    }

    private function near(Played $played, Layout $layout, float $faster, float $side, float $height, float $turn): ?Played
    {
        if ((null !== $this->drill->tip && (0.0 !== $side || 0.0 !== $height)) || (null !== $this->drill->speed && 1.0 !== $faster)) {
            return null;
        }
        try {
            if (null !== $played->choice) {
                $stroke = $played->choice->stroke;
                $tip = Tip::fractions($stroke->tip->side + $side, $stroke->tip->height + $height);
                $choice = $played->choice->withStroke(new Stroke($tip, $stroke->speed * $faster, $stroke->elevation));
                $strike = $this->solver->aimed($layout, $choice)->strike;

                return new Played($strike, $this->errors($layout, $strike, $choice), $played->place, $choice);
            }
            $meant = $played->strike;
            $strike = RaisedCue::strike(
                $layout,
                $this->solver->equipment,
                $meant->direction + $meant->squirt() + $turn,
                $meant->speed * $faster,
                $meant->side + $side,
                $meant->height + $height,
            );

            return null === $strike ? null : new Played($strike, $this->errors($layout, $strike, null), $played->place, null);
        } catch (CoreError) {
            return null;
        }
    }

    private function mean(Rollouts $rollouts, Attempt $attempt, Played $played, int $tries, int $seed): float
    {
        $random = new Randomness($seed);
        $sum = 0.0;
        for ($try = 0; $try < $tries; ++$try) {
            try {
                $ending = $rollouts->play($played->errors->disturb($played->strike, $random, $this->solver->equipment->balls->radius));
            } catch (CoreError) {
                continue;
            }
            $sum += $this->judge->value($attempt, $ending);
        }

        return $sum / $tries;
    }

    /** @return \Generator<array{Strike, ShotChoice|null}> */
    private function strokes(Layout $layout, Attempt $attempt, bool $isQuick): \Generator
    {
        yield from match (true) {
            Task::Pot === $this->drill->task => $this->pots($layout, $isQuick),
            Task::Lag === $this->drill->task => $this->lags($layout),
            $this->drill->before > 0 => $this->kicks($layout),
            default => $this->hits($layout, $isQuick),
        };
    }

    /** @return \Generator<array{Strike, ShotChoice|null}> */
    private function pots(Layout $layout, bool $isQuick): \Generator
    {
        $balls = null === $this->drill->ball ? $layout->without(Ball::Cue)->balls() : [$this->drill->ball];
        $pockets = null === $this->drill->pocket ? Pocket::cases() : [$this->drill->pocket];
        if ($this->drill->before > 0) {
            yield from $this->indirect($layout, $balls, $pockets);

            return;
        }
        foreach ($balls as $ball) {
            foreach ($pockets as $pocket) {
                $line = PotModel::find($layout, $ball, $pocket, $this->solver, $this->player, true);
                if (null === $line || $line->chance($layout->spot(Ball::Cue)) < 0.01) {
                    continue;
                }
                $cue = $layout->spot(Ball::Cue);
                $aim = $cue->directionTo($line->ghost);
                $ghost = GhostBall::byHand($cue, $layout->spot($ball), $aim, $this->solver->equipment->balls);
                $isStraight = !$isQuick && [] !== $this->drill->targets && $ghost->cutDegrees < self::STRAIGHT;
                foreach ($isStraight ? self::ASIDE : [0.0] as $aside) {
                    yield from $this->potsAt($layout, $ball, $pocket, $line->asideMetres() + $aside, $isQuick);
                }
            }
        }
    }

    /** @return \Generator<array{Strike, ShotChoice}> */
    private function potsAt(Layout $layout, Ball $ball, Pocket $pocket, float $aside, bool $isQuick): \Generator
    {
        foreach ($this->speeds($isQuick) as $speed) {
            foreach ($this->tips($isQuick) as $tip) {
                $choice = new ShotChoice($ball, $pocket, new Stroke($tip, $speed, 2.0), $aside);
                try {
                    yield [$this->solver->aimed($layout, $choice)->strike, $choice];
                } catch (CoreError) {
                    continue;
                }
            }
        }
    }

    /**
     * @param list<Ball>   $balls
     * @param list<Pocket> $pockets
     *
     * @return \Generator<array{Strike, ShotChoice|null}>
     */
    private function indirect(Layout $layout, array $balls, array $pockets): \Generator
    {
        $search = new IndirectSearch(new Rack(Game::StraightPool, $layout, $this->solver->equipment, $this->player), 0.5, $this->solver);
        foreach ($search->windows($layout, $balls, $balls, 12, true) as $choice) {
            if (\in_array($choice->pocket, $pockets, true)) {
                try {
                    yield [$this->solver->aimed($layout, $choice)->strike, $choice];
                } catch (CoreError) {
                    continue;
                }
            }
        }
    }

    /** @return \Generator<array{Strike, null}> */
    private function lags(Layout $layout): \Generator
    {
        [$slowest, $fastest, $steps] = self::LAG;
        $tip = $this->drill->tip ?? Tip::fractions(0.0, self::ROLLING);
        // Up and down the table: where it goes, the targets say.
        $directions = $layout->spot(Ball::Cue)->x < 0.5 * $this->solver->equipment->table->length ? [0.0, \M_PI] : [\M_PI, 0.0];
        foreach ($directions as $direction) {
            for ($i = 0; $i <= $steps; ++$i) {
                $speed = $this->drill->speed ?? $slowest * ($fastest / $slowest) ** ($i / $steps);
                $strike = RaisedCue::strike($layout, $this->solver->equipment, $direction, $speed, $tip->side, $tip->height);
                if (null !== $strike) {
                    yield [$strike, null];
                }
            }
        }
    }

    /** @return \Generator<array{Strike, null}> */
    private function hits(Layout $layout, bool $isQuick): \Generator
    {
        $cue = $layout->spot(Ball::Cue);
        foreach (null === $this->drill->ball ? $layout->without(Ball::Cue)->balls() : [$this->drill->ball] as $ball) {
            $spot = $layout->spot($ball);
            $diameter = $this->solver->equipment->balls->diameter();
            $reach = $diameter / max($diameter, $cue->distanceTo($spot));
            foreach (self::FRACTIONS as $fraction) {
                $direction = $cue->directionTo($spot) + asin(min(1.0, $reach) * $fraction);
                foreach ($this->speeds($isQuick) as $speed) {
                    foreach ($this->tips(true) as $tip) {
                        $strike = RaisedCue::strike($layout, $this->solver->equipment, $direction, $speed, $tip->side, $tip->height);
                        if (null !== $strike) {
                            yield [$strike, null];
                        }
                    }
                }
            }
        }
    }

    /** @return \Generator<array{Strike, null}> */
    private function kicks(Layout $layout): \Generator
    {
        $tip = $this->drill->tip ?? Tip::fractions(0.0, 0.2);
        for ($degrees = 0.0; $degrees < 360.0; $degrees += self::ROUND) {
            foreach (null === $this->drill->speed ? self::KICKS : [$this->drill->speed] as $speed) {
                $strike = RaisedCue::strike($layout, $this->solver->equipment, deg2rad($degrees), $speed, $tip->side, $tip->height);
                if (null !== $strike) {
                    yield [$strike, null];
                }
            }
        }
    }

    /** @return list<float> */
    private function speeds(bool $isQuick): array
    {
        return null !== $this->drill->speed ? [$this->drill->speed] : ($isQuick ? self::QUICK_SPEEDS : self::SPEEDS);
    }

    /** @return list<Tip> */
    private function tips(bool $isQuick): array
    {
        if (null !== $this->drill->tip) {
            return [$this->drill->tip];
        }
        $tips = [];
        foreach ($isQuick || [] === $this->drill->targets ? [0.0] : self::SIDES as $side) {
            foreach ($isQuick ? self::QUICK_HEIGHTS : self::HEIGHTS as $height) {
                if (hypot($side, $height) < 0.48) {
                    $tips[] = Tip::fractions($side, $height);
                }
            }
        }

        return $tips;
    }

    private function errors(Layout $layout, Strike $strike, ?ShotChoice $choice): Deviations
    {
        if (null !== $choice) {
            $shot = $this->solver->aimed($layout, $choice);

            return $this->player->in($strike, ShotDemands::of($this->solver, $layout, $shot, $this->player->growth));
        }
        if ($this->drill->before > 0 && Task::Lag !== $this->drill->task) {
            return $this->player->in(
                $strike,
                ShotDemands::ofKick($this->solver->simulator->play($layout, $strike), $this->player->growth),
            );
        }

        return $this->player->in($strike, new Demands(Bridge::isAwkward($layout, $strike->direction, $this->solver->equipment)));
    }

    /** @return list<array{Layout, Spot|null}> with the cue ball; in hand at places of its area */
    public function layouts(Attempt $attempt, int $seed, bool $isQuick): array
    {
        if ($attempt->layout->has(Ball::Cue)) {
            return [[$attempt->layout, null]];
        }
        $area = $this->drill->places[0]->area ?? Area::box(0.0, 0.0, 8.0, 4.0);
        [$long, $short, $toLong, $toShort] = $area->bounds();
        $random = new Randomness($seed);
        $rules = new LayoutRules($this->solver->equipment);
        $layouts = [];
        for ($draw = 0; $draw < 400 && \count($layouts) < ($isQuick ? 4 : self::PLACES); ++$draw) {
            $at = [$long + $random->share() * ($toLong - $long), $short + $random->share() * ($toShort - $short)];
            $spot = Spot::diamonds($at[0], $at[1], $this->solver->equipment->table);
            $layout = $attempt->layout->with(Ball::Cue, $spot);
            if ($area->worth(...$at) > 0.0 && [] === $rules->faults($layout)) {
                $layouts[] = [$layout, $spot];
            }
        }

        return $layouts;
    }

    /**
     * @param list<Played> $tried
     *
     * @return list<Played> the best first
     */
    private static function ranked(array $tried): array
    {
        usort($tried, static fn (Played $a, Played $b): int => $b->mean <=> $a->mean);

        return $tried;
    }
}
