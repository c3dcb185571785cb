<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallsOn;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;

/**
 * A sound player's way, to hold the planner against: three balls ahead with natural position. Of the straight pots the most promising, each
 * with follow, stun and draw at four speeds and no side; what each stroke leaves when nothing goes wrong, as the chance of the best pot
 * then; and of the best strokes the same once more. The worth of a shot is the product of the three chances. He knows no zones, no spread
 * of his position, no banks, kicks or clusters.
 */
final readonly class ThreeAhead implements Chooser
{
    /** Pots that are looked at now, and of the ball after. */
    private const POTS = 3;
    private const AFTER = 2;
    /** Strokes whose third ball is looked at. */
    private const DEEP = 3;
    /** Speeds just after the hit, m/s, and heights of the tip, fractions of the radius. */
    private const SPEEDS = [1.0, 1.5, 2.1, 3.0];
    private const HEIGHTS = [0.35, 0.0, -0.3];
    private const TWO_SPEEDS = [1.2, 2.1];
    private const TWO_HEIGHTS = [0.35, -0.2];
    private const LEAST = 0.01;
    /** What a run is worth that has nothing straight to go on with. */
    private const NOTHING = 0.05;

    private PotLines $lines;
    private Referee $referee;

    /**
     * @param float $grid     of the places of balls, metres, as PotLines has it
     * @param bool  $isQuick  two balls ahead, with two speeds and two heights
     * @param int   $held     balls that are left alone while there are others, as bits
     * @param bool  $isCoarse as PotModel has it
     */
    public function __construct(
        private Rack $rack,
        private ShotSolver $solver,
        private ?Group $group = null,
        float $grid = 0.0,
        private bool $isQuick = false,
        private int $held = 0,
        bool $isCoarse = false,
    ) {
        $this->lines = new PotLines($rack, $solver, $grid, $isCoarse);
        $this->referee = Referee::of($rack);
    }

    public function next(Layout $layout, int $seed, ?Turn $turn = null): ?Option
    {
        return $this->options($layout, $turn)[0] ?? null;
    }

    /** @return list<Option> the best stroke of each pot that was looked at, the best first */
    public function options(Layout $layout, ?Turn $turn = null): array
    {
        $turn ??= new Turn($this->group);
        $shots = $this->shots($layout, $turn, $this->isQuick ? self::AFTER : self::POTS);
        usort($shots, static fn (array $a, array $b): int => $b[0]->value <=> $a[0]->value);
        $best = [];
        foreach ($shots as $i => [$option, $left]) {
            $third = null === $left || $this->isQuick ? 1.0 : ($i < self::DEEP ? $this->afterNext($left, $turn) : self::NOTHING);
            $value = $option->value * $third;
            $pot = $option->choice->ball->value.$option->choice->pocket->value;
            if ($value > ($best[$pot]->value ?? 0.0)) {
                $best[$pot] = $option->withValue($value);
            }
        }

        return Option::ranked(array_values($best));
    }

    /**
     * @return list<array{Option, Layout|null}> shots with the product of their chance and that of the next; what they leave, null where the
     *                                          game is won
     */
    private function shots(Layout $layout, Turn $turn, int $most): array
    {
        $cue = $layout->spot(Ball::Cue);
        $shots = [];
        $on = $this->on($layout, $turn);
        $rollouts = $this->solver->simulator->rollouts($layout);
        foreach ($this->lines->open($layout, $on, $most) as [$ball, $pocket]) {
            $line = $this->lines->line($layout->spot($ball), $pocket);
            $chance = $this->lines->chance($cue, $layout->spot($ball), $pocket);
            if (null === $line || $chance < self::LEAST) {
                continue;
            }
            foreach ($this->isQuick ? self::TWO_SPEEDS : self::SPEEDS as $speed) {
                foreach ($this->isQuick ? self::TWO_HEIGHTS : self::HEIGHTS as $height) {
                    $choice = new ShotChoice($ball, $pocket, new Stroke(Tip::fractions(0.0, $height), $speed, 2.0), $line->asideMetres());
                    try {
                        $shot = $this->solver->aimed($layout, $choice);
                        $ending = $rollouts->play($shot->strike);
                    } catch (CoreError) {
                        continue;
                    }
                    $verdict = $this->referee->judge($layout, $turn, $ending, $ball, $pocket, $shot->strike);
                    if (!$verdict->goesOn) {
                        continue;
                    }
                    $isOver = true === $verdict->isWon || [] === BallsOn::of($this->rack->game, $ending->final, $turn->group);
                    $next = $isOver ? 1.0 : $this->easiest($ending, $turn);
                    $shots[] = [Option::of($shot, $chance * max(self::NOTHING, $next)), $isOver ? null : $ending->final];
                }
            }
            if ([] === $shots) {
                // Nothing goes on as meant: the pot alone.
                $shot = $this->plain($layout, new ShotChoice($ball, $pocket, $line->stroke($cue), $line->asideMetres()), $chance);
                $shots = null === $shot ? [] : [[$shot, $layout]];
            }
        }

        return $shots;
    }

    /** @return list<Ball> that may be shot, but for those that are held */
    private function on(Layout $layout, Turn $turn): array
    {
        $on = BallsOn::of($this->rack->game, $layout, $turn->group);
        $free = array_values(array_filter($on, fn (Ball $ball): bool => 0 === ($this->held & Order::bit($ball))));

        return [] === $free ? $on : $free;
    }

    private function plain(Layout $layout, ShotChoice $choice, float $chance): ?Option
    {
        try {
            return Option::of($this->solver->aimed($layout, $choice), self::NOTHING * $chance);
        } catch (CoreError) {
            return null;
        }
    }

    private function easiest(Ending $ending, Turn $turn): float
    {
        $layout = $ending->final;
        $best = 0.0;
        $on = $this->on($layout, $turn);
        foreach ($this->lines->open($layout, $on, self::AFTER) as [$ball, $pocket]) {
            $best = max($best, $this->lines->chance($layout->spot(Ball::Cue), $layout->spot($ball), $pocket));
        }

        return $best;
    }

    /** The chance of the third ball with the best of the strokes at the second, when that is made. */
    private function afterNext(Layout $layout, Turn $turn): float
    {
        $best = 0.0;
        foreach ($this->shots($layout, $turn, 1) as [$option]) {
            $best = max($best, $option->value);
        }
        $second = 0.0;
        foreach (\array_slice(
            $this->lines->open($layout, $this->on($layout, $turn)),
            0,
            1,
        ) as [$ball, $pocket]) {
            $second = $this->lines->chance($layout->spot(Ball::Cue), $layout->spot($ball), $pocket);
        }

        return $second > self::LEAST ? min(1.0, $best / $second) : self::NOTHING;
    }
}
