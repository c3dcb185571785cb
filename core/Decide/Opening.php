<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\BreakReferee;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Rules\Verdict;
use ZigLane\Core\Shot\RaisedCue;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * The opening break of straight pool, which is a safety: two object balls and the cue ball have to reach a cushion, and the less of the
 * rack is opened the better (common practice: thin on a rear corner ball, the cue ball back to the head rail).
 */
final readonly class Opening
{
    /** Across the table, in diamonds from the right rail: the other side is its mirror image. */
    private const PLACES = [0.5, 0.75, 1.0];
    /** Just behind the head string, metres. */
    private const BEHIND = 0.002;
    /** Offsets of the cue ball's line, as shares of the most that still meets the ball; speeds, m/s; side of the tip. */
    private const FRACTIONS = [0.5, 0.6, 0.68, 0.76, 0.84, 0.92];
    private const SPEEDS = [2.0, 2.5, 3.0, 3.6];
    private const SIDES = [-0.3, 0.0, 0.3];
    private const HEIGHT = 0.15;
    /** Place in the rack of its right rear corner. */
    private const CORNER = 10;

    /** Whether a position is one: all fifteen racked, and the cue ball in hand behind the head string. */
    public static function is(Situation $situation, Equipment $equipment): bool
    {
        return $situation->game->rules()->countsBalls
            && BallInHand::Kitchen === $situation->inHand
            && Racking::isWhole($situation->layout, $equipment);
    }

    /** What a break comes to; the other player may have it made again after one that is not legal. */
    public static function judge(Ending $ending): Verdict
    {
        $break = (new BreakReferee(Game::StraightPool))->judge($ending);

        return new Verdict($break->fouls, false, null, $break->spots, null, $break->points, $break->inHand);
    }

    /**
     * To the one who breaks: of a break that is not legal the other takes what is left, or has it made again, which is worth nothing to
     * either.
     *
     * @param float $left what the position that is left is worth to the one who broke, balls
     */
    public static function worth(Verdict $verdict, float $left): float
    {
        return $verdict->points + ($verdict->points < -1 ? min(0.0, $left) : $left);
    }

    /** @return list<Spot> where the cue ball may well be placed */
    public static function places(Equipment $equipment): array
    {
        $x = 0.25 * $equipment->table->length - self::BEHIND;

        return array_map(
            static fn (float $across): Spot => Spot::metres($x, $across * $equipment->table->length / 8),
            self::PLACES,
        );
    }

    /** @return \Generator<Strike> outside hits of the rear corner ball, thicker and thinner */
    public static function strikes(Layout $layout, Equipment $equipment): \Generator
    {
        $cue = $layout->spot(Ball::Cue);
        $racked = Racking::racked($layout, $equipment) ?? [];
        $corner = $layout->spot($racked[self::CORNER - 1]);
        $reach = $equipment->balls->diameter() / $cue->distanceTo($corner);
        foreach (self::FRACTIONS as $fraction) {
            $direction = $cue->directionTo($corner) - asin($reach * $fraction);
            foreach (self::SPEEDS as $speed) {
                foreach (self::SIDES as $side) {
                    $strike = RaisedCue::strike($layout, $equipment, $direction, $speed, $side, self::HEIGHT);
                    if (null !== $strike) {
                        yield $strike;
                    }
                }
            }
        }
    }
}
