<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\PotLines;
use ZigLane\Core\Plan\ThreeAhead;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\AimedShot;
use ZigLane\Core\Shot\IndirectSearch;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Spot;

/**
 * Attacks: the straight pots whose ways are free, each with several speeds and heights of the tip, and what the cue turned once round makes
 * over cushions and other balls; the best as they are meant are tried with the player's errors. A stroke is worth what it leaves when it
 * is made and what it leaves when it is missed.
 */
final readonly class AttackSearch
{
    private const SPEEDS = [0.9, 1.3, 1.8, 2.5, 3.4];
    private const HEIGHTS = [0.4, 0.15, -0.1, -0.4];
    /** Pots that are looked at, strokes of each that are tried, and tries. */
    private const POTS = 6;
    private const STROKES = 3;
    private const TRIES = 16;
    private const LEAST = 0.02;
    /** Step of the direction for indirect shots, degrees; how many are tried. */
    private const STEP = 0.5;
    private const INDIRECT = 6;
    /** In a duel: straight pots tried; step and number of indirect shots. */
    private const QUICK = 3;
    private const QUICK_STEP = 2.0;
    private const QUICK_INDIRECT = 3;

    private PotLines $lines;

    public function __construct(
        private Rack $rack,
        private Situation $situation,
        private WayTrials $trials,
        private ShotSolver $solver,
        private ExecutionErrors $player,
    ) {
        $this->lines = new PotLines($rack->withPlayer($player), $solver);
    }

    /**
     * @return list<array{Way, WayTally}> of each ball and pocket the best stroke, the best first
     */
    public function find(int $seed, ?Spot $place = null, bool $isIndirect = true): array
    {
        $layout = $this->situation->placed($place);
        $ways = $this->straight($layout, $place);
        if ($isIndirect) {
            array_push($ways, ...$this->indirect($layout, $place, self::STEP, self::INDIRECT, true));
        }

        return $this->bestOfEach($ways, $seed);
    }

    /**
     * As in a duel: what a sound player would think of.
     *
     * @param ThreeAhead $chooser who finds them
     *
     * @return list<Way>
     */
    public function quick(ThreeAhead $chooser, bool $isIndirect, ?Spot $place = null): array
    {
        $layout = $this->situation->placed($place);
        $ways = [];
        foreach (\array_slice($chooser->options($layout, $this->situation->turn()), 0, self::QUICK) as $option) {
            $ways[] = $this->way($layout, $option->aimed(), $place);
        }

        return !$isIndirect
            ? $ways
            : [...$ways, ...$this->indirect($layout, $place, self::QUICK_STEP, self::QUICK_INDIRECT, false)];
    }

    /** A shot that is called, as a way. */
    public function way(Layout $layout, AimedShot $shot, ?Spot $place = null): Way
    {
        return new Way(
            WayKind::Attack,
            $shot->choice,
            $shot->strike,
            $this->player->in($shot->strike, ShotDemands::of($this->solver, $layout, $shot, $this->player->growth)),
            $place,
        );
    }

    /** The same call with another stroke, if it can be aimed. */
    public function near(Way $way, float $faster, float $side, float $height): ?Way
    {
        $choice = $way->choice;
        if (null === $choice) {
            return null;
        }
        $layout = $this->situation->placed($way->place);
        $stroke = $choice->stroke;
        try {
            $other = $choice->withStroke(new Stroke(
                Tip::fractions($stroke->tip->side + $side, $stroke->tip->height + $height),
                $stroke->speed * $faster,
                $stroke->elevation,
            ));

            return $this->way($layout, $this->solver->aimed($layout, $other), $way->place);
        } catch (CoreError) {
            return null;
        }
    }

    /** @return list<Way> the strokes of each pot that promise most: by what they leave as they are meant, and how often they are made */
    private function straight(Layout $layout, ?Spot $place): array
    {
        $cue = $layout->spot(Ball::Cue);
        $missed = $this->trials->worthMissed();
        $ways = [];
        foreach ($this->lines->open($layout, $this->situation->shootable(), self::POTS) as [$ball, $pocket]) {
            $line = $this->lines->line($layout->spot($ball), $pocket);
            $chance = $line?->chance($cue) ?? 0.0;
            if (null === $line || $chance < self::LEAST) {
                continue;
            }
            $meant = [];
            foreach (self::SPEEDS as $speed) {
                // A firm stroke that leaves more is made less often.
                $made = $line->chanceStarting($cue, $speed);
                foreach (self::HEIGHTS as $height) {
                    $choice = new ShotChoice($ball, $pocket, new Stroke(Tip::fractions(0.0, $height), $speed, 2.0), $line->asideMetres());
                    try {
                        $way = $this->way($layout, $this->solver->aimed($layout, $choice), $place);
                    } catch (CoreError) {
                        continue;
                    }
                    $played = $this->trials->meant($way);
                    if (null !== $played && $played[1]->goesOn) {
                        $meant[] = [$made * $this->trials->worth(...$played) + (1 - $made) * $missed, $way];
                    }
                }
            }
            usort($meant, static fn (array $a, array $b): int => $b[0] <=> $a[0]);
            array_push($ways, ...array_column(\array_slice($meant, 0, self::STROKES), 1));
        }

        return $ways;
    }

    /** @return list<Way> */
    private function indirect(Layout $layout, ?Spot $place, float $step, int $count, bool $isFirm): array
    {
        $search = new IndirectSearch($this->rack->withPlayer($this->player), $step, $this->solver);
        $ways = [];
        foreach ($search->windows($layout, $this->situation->on(), $this->situation->shootable(), $count, $isFirm) as $choice) {
            try {
                // What is made straight is among the straight pots.
                if ($isFirm && null === IndirectSearch::wayOf($this->solver->solve($layout, $choice))) {
                    continue;
                }
                $ways[] = $this->way($layout, $this->solver->aimed($layout, $choice), $place);
            } catch (CoreError) {
                continue;
            }
        }

        return $ways;
    }

    /**
     * @param list<Way> $ways
     *
     * @return list<array{Way, WayTally}>
     */
    private function bestOfEach(array $ways, int $seed): array
    {
        $best = [];
        foreach ($ways as $way) {
            $tally = $this->trials->tally($way, self::TRIES, $seed);
            $key = ($way->choice->ball->value ?? 0).$way->choice?->pocket->value.(null === $way->choice?->direction ? '' : 'i');
            if ($tally->made > 0 && (!isset($best[$key]) || $this->trials->rank($tally) > $this->trials->rank($best[$key][1]))) {
                $best[$key] = [$way, $tally];
            }
        }

        return $this->trials->ranked(array_values($best));
    }
}
