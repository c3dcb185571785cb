<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;

/**
 * The break shot of straight pool: the last ball of a rack is made while the cue ball opens the next, which lies there without its apex.
 * A few strokes are played once as meant; the best two are tried with the player's errors, and the one that is made and opens the rack
 * more often is played.
 */
final readonly class BreakOff
{
    /** A racked ball that has gone farther than this is out of the rack, metres. */
    public const MOVED = 0.05;
    /** So many of the fourteen open the rack: common practice speaks of a handful of balls to go on with. */
    private const OPEN = 5;
    /** Strokes: speed m/s and height of the tip. */
    private const STROKES = [[3.2, 0.35], [4.4, 0.35], [4.4, 0.0], [5.6, 0.2]];
    private const TRIED = 2;
    private const TRIES = 4;

    public function __construct(private Rack $rack, private ShotSolver $solver)
    {
    }

    /** @return Option|null its value the share of tries that are made, keep the cue ball on the table, and open the rack */
    public function choose(Layout $racked, Ball $ball, int $seed): ?Option
    {
        return $this->options($racked, $ball, $seed, self::TRIED, self::TRIES)[0] ?? null;
    }

    /**
     * Break shots, the best first.
     *
     * @param int $count how many are tried
     * @param int $tries of each
     *
     * @return list<Option> with the share of tries that are made, keep the cue ball on the table, and open the rack
     */
    public function options(Layout $racked, Ball $ball, int $seed, int $count, int $tries): array
    {
        $cue = $racked->spot(Ball::Cue);
        $meant = [];
        // What stands in the ways the tries tell.
        $alone = Layout::empty()->with($ball, $racked->spot($ball));
        $rollouts = $this->solver->simulator->rollouts($racked);
        foreach (Pocket::cases() as $pocket) {
            $line = PotModel::find($alone, $ball, $pocket, $this->solver, $this->rack->player);
            if (null === $line || $line->chance($cue) < 0.05) {
                continue;
            }
            foreach (self::STROKES as [$speed, $height]) {
                $choice = new ShotChoice($ball, $pocket, new Stroke(Tip::fractions(0.0, $height), $speed, 2.0), $line->asideMetres());
                try {
                    $shot = $this->solver->aimed($racked, $choice);
                } catch (CoreError) {
                    continue;
                }
                $meant[] = [self::isGood($racked, $rollouts->play($shot->strike), $choice), Option::of($shot, $line->chance($cue) / 100)];
            }
        }
        usort($meant, static fn (array $a, array $b): int => [$b[0], $b[1]->value] <=> [$a[0], $a[1]->value]);
        $options = [];
        foreach (\array_slice($meant, 0, $count) as [, $option]) {
            $value = $option->value + $this->tried($racked, $option, new Randomness($seed), $tries);
            if ($value > 0.0) {
                $options[] = $option->withValue(min(1.0, $value));
            }
        }

        return Option::ranked($options);
    }

    private function tried(Layout $racked, Option $option, Randomness $random, int $tries): float
    {
        $good = 0;
        for ($try = 0; $try < $tries; ++$try) {
            $ending = $this->play($racked, $option, $random);
            $good += null !== $ending && self::isGood($racked, $ending, $option->choice) ? 1 : 0;
        }

        return $good / $tries;
    }

    private static function isGood(Layout $racked, Ending $ending, ShotChoice $choice): bool
    {
        return !$ending->isScratch() && $ending->pocketOf($choice->ball) === $choice->pocket && self::isOpen($racked, $ending);
    }

    /** One break with the player's errors; null for a miscue. */
    public function play(Layout $racked, Option $option, Randomness $random): ?Ending
    {
        try {
            $player = $this->rack->player;
            $errors = $player->in($option->strike, ShotDemands::of($this->solver, $racked, $option->aimed(), $player->growth));

            return $this->solver->simulator->rollouts($racked)->play(
                $errors->disturb($option->strike, $random, $this->rack->equipment->balls->radius),
            );
        } catch (IllegalStroke) {
            return null;
        }
    }

    public static function isOpen(Layout $racked, Ending $ending): bool
    {
        return self::opened($racked, $ending->final) >= self::OPEN;
    }

    /** Racked balls that have left their place. */
    public static function opened(Layout $racked, Layout $final): int
    {
        $moved = 0;
        foreach ($racked->balls() as $ball) {
            $moved += Ball::Cue !== $ball
                && (!$final->has($ball) || $final->spot($ball)->distanceTo($racked->spot($ball)) > self::MOVED) ? 1 : 0;
        }

        // The break ball itself is not of the rack.
        return max(0, $moved - 1);
    }

    /** What an opened rack leaves: the chance of the easiest pot from where the cue ball lies, 0 if nothing goes straight. */
    public function left(Layout $opened): float
    {
        return (new Leave($this->rack, $this->solver))->easiest($opened, Order::balls(Order::maskOf($opened)));
    }
}
