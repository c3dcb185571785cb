<?php

declare(strict_types=1);

namespace ZigLane\Core\Breaking;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\Outcome;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\BreakOff;
use ZigLane\Core\Plan\Option;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;

/**
 * Many break shots of straight pool with a player's errors: whether the ball is made, what opens and what sticks, and what is left to go on
 * with (the easiest pot of those that opened, of a sample).
 *
 * Cost: four milliseconds each, and twenty for what one leaves.
 */
final class BreakOffTrials
{
    /** Of one in so many it is looked what it leaves. */
    private const SAMPLE = 5;

    public readonly Layout $racked;
    public readonly Option $meant;
    /** As it goes without errors. */
    public readonly Outcome $outcome;
    private readonly BreakOff $breakOff;

    /** @throws IllegalLayout If the balls cannot lie so, or nothing goes */
    public function __construct(BreakOffShot $shot, ExecutionErrors $player, private readonly ShotSolver $solver)
    {
        $this->racked = $shot->layout($solver->equipment) ?? throw IllegalLayout::inTheRack(BreakOffShot::BALL);
        $rack = new Rack(Game::StraightPool, $this->racked, $solver->equipment, $player);
        $this->meant = $shot->aimed($rack->layout, $solver, $player) ?? throw IllegalLayout::goesNowhere(BreakOffShot::BALL);
        $this->breakOff = new BreakOff($rack, $solver);
        $this->outcome = $solver->simulator->play($this->racked, $this->meant->strike);
    }

    public function play(int $count, int $seed = 1): BreakOffTally
    {
        $tally = new BreakOffTally();
        $called = $this->meant->choice;
        for ($i = 0; $i < $count; ++$i) {
            ++$tally->shots;
            $random = new Randomness(($seed * 48_271 + $i * 7919 + 11) & 0x7FFFFFFF);
            try {
                $ending = $this->breakOff->play($this->racked, $this->meant, $random);
            } catch (CoreError) {
                $ending = null;
            }
            if (null === $ending) {
                continue;
            }
            $isMade = $ending->pocketOf($called->ball) === $called->pocket;
            $tally->made += $isMade ? 1 : 0;
            $tally->scratches += $ending->isScratch() ? 1 : 0;
            $opened = BreakOff::opened($this->racked, $ending->final);
            $tally->opened += $opened;
            $isOpen = BreakOff::isOpen($this->racked, $ending);
            $tally->open += $isOpen ? 1 : 0;
            foreach ($ending->final->balls() as $ball) {
                if (Ball::Cue === $ball) {
                    $tally->spots[] = [$ending->final->spot($ball)->x, $ending->final->spot($ball)->y];
                } elseif (
                    $ball !== $called->ball
                    && $ending->final->spot($ball)->distanceTo($this->racked->spot($ball)) <= BreakOff::MOVED
                ) {
                    $tally->stuck[$ball->value] = ($tally->stuck[$ball->value] ?? 0) + 1;
                }
            }
            if (!$isMade || $ending->isScratch()) {
                continue;
            }
            $tally->good += $isOpen ? 1 : 0;
            if (0 === $i % self::SAMPLE) {
                ++$tally->looked;
                $tally->left += $isOpen ? $this->breakOff->left($ending->final) : 0.0;
            }
        }

        return $tally;
    }

    /** The ball of the rack that the cue ball meets first, as it is meant; null where it misses the rack. */
    public function meets(): ?Ball
    {
        foreach ($this->outcome->eventsOf(Ball::Cue) as $event) {
            $other = Ball::Cue === $event->ball ? $event->other : $event->ball;
            if (null !== $other && $other !== $this->meant->choice->ball) {
                return $other;
            }
        }

        return null;
    }
}
