<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\Outcome;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * A break: the rack with the cue ball, the stroke that was meant, and what came of it.
 *
 * The usual strokes (common practice, checked by simulation in docs/break.md): nine-ball from beside the left long rail, where
 * the wing ball on that side heads for its corner; eight-ball from the middle of the head string; ten-ball from half a diamond
 * beside it; each hard, with the middle of the tip, full on the ball at the apex. Straight pool opens safe: softly
 * and less than half on the rear corner ball, so that two balls reach a cushion and the cue ball comes back to the head rail.
 */
final readonly class BreakShot
{
    private function __construct(
        public Layout $rack,
        public Strike $meant,
        public Outcome $outcome,
        /** @var list<Ball> the outermost balls of the widest row but the last: in nine-ball the balls on the wing, right and left */
        public array $wings,
    ) {
    }

    /**
     * Racks, breaks with a player's errors, and plays it to the end.
     *
     * @throws IllegalStroke If the errors take the tip past the miscue limit
     */
    public static function play(
        Game $game,
        Equipment $equipment,
        ExecutionErrors $player,
        Randomness $random,
        float $looseness = Racking::LOOSENESS,
    ): self {
        $rack = Racking::of($game, $equipment, $random, $looseness);
        [$cue, $meant] = self::stroke($game, $equipment, $rack);

        return self::struck($rack, $cue, $meant, new EventSimulator($equipment), $equipment, $player, $random);
    }

    /**
     * Breaks a rack from a place of the cue ball with a stroke, by a player whose errors it grows with.
     *
     * @throws IllegalStroke If the errors take the tip past the miscue limit
     */
    public static function struck(
        Layout $rack, Spot $cue, Strike $meant, EventSimulator $simulator, Equipment $equipment,
        ExecutionErrors $player, Randomness $random,
    ): self {
        $balls = $rack->balls();
        $layout = Layout::empty()->with(Ball::Cue, $cue);
        foreach ($balls as $ball) {
            $layout = $layout->with($ball, $rack->spot($ball));
        }
        $outcome = $simulator->play($layout, $player->ordinary()->disturb($meant, $random, $equipment->balls->radius));

        return new self($layout, $meant, $outcome, [$balls[3], $balls[5]]);
    }

    /** @return array{Spot, Strike} where the cue ball lies and the stroke */
    private static function stroke(Game $game, Equipment $equipment, Layout $rack): array
    {
        $table = $equipment->table;
        $endMassRatio = $equipment->cue->endMassRatio;
        $usual = $game->rules()->breakStroke;
        if (null !== $usual) {
            [$across, $speed] = $usual;
            $cue = Spot::diamonds(2.0, $across, $table);

            return [$cue, Strike::degrees(rad2deg($cue->directionTo(Racking::footSpot($table))), $speed, 0.0, 0.0, 2.0, $endMassRatio)];
        }
        $cue = Spot::diamonds(2.0, 1.0, $table);
        $corner = $rack->spot($rack->balls()[10]);
        // To the right of the right corner ball, so far that three tenths of the ball are hit.
        $aside = asin((1 - 0.3) * $equipment->balls->diameter() / $cue->distanceTo($corner));
        $strike = Strike::degrees(0.0, 2.8, 0.0, 0.15, 2.0, $endMassRatio);

        return [$cue, $strike->withDirection($cue->directionTo($corner) - $aside - $strike->squirt())];
    }

    /** Whether a ball on the wing drops in the corner on its side of the foot rail. */
    public function wingWent(): bool
    {
        [$right, $left] = $this->wings;

        return 'FR' === $this->outcome->pocketOf($right)?->value || 'FL' === $this->outcome->pocketOf($left)?->value;
    }

    /** Object balls pocketed. */
    public function made(): int
    {
        return \count($this->outcome->pocketed) - ($this->outcome->isScratch() ? 1 : 0);
    }

    /** Mean distance between any two object balls that are left, metres; 0 with fewer than two. */
    public function spread(): float
    {
        $balls = $this->outcome->final->without(Ball::Cue)->balls();
        $sum = 0.0;
        $pairs = 0;
        foreach ($balls as $i => $one) {
            foreach (\array_slice($balls, $i + 1) as $other) {
                $sum += $this->outcome->final->spot($one)->distanceTo($this->outcome->final->spot($other));
                ++$pairs;
            }
        }

        return $pairs > 0 ? $sum / $pairs : 0.0;
    }

    public function verdict(Game $game, RuleOptions $options = new RuleOptions()): BreakVerdict
    {
        return (new BreakReferee($game, $options))->judge(Ending::of($this->outcome));
    }

    /**
     * The layout that is left, for the next shot: with balls spotted that come back, the cue ball in hand after a foul, and a push-out
     * allowed. A 9 that has won is spotted too, for those who play on: no layout lacks its money ball without a word.
     */
    public function rackAfter(Game $game, Equipment $equipment, ExecutionErrors $player, RuleOptions $options = new RuleOptions()): Rack
    {
        $verdict = $this->verdict($game, $options);
        $money = $game->rules()->moneyBall;
        $spots = $verdict->isWon && null !== $money ? [$money] : $verdict->spots;
        $final = $this->outcome->final;

        return (new Rack(
            $game,
            Spotting::back(BallInHand::None === $verdict->inHand ? $final : $final->without(Ball::Cue), $spots, $equipment),
            $equipment,
            $player,
            $verdict->inHand,
            $game->rules()->group(null),
            $options,
        ))->withStanding(new Standing(mayPush: $verdict->mayPush));
    }
}
