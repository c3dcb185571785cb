<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Error\IllegalStroke;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Foul;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\Rerack;
use ZigLane\Core\Rules\Spotting;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;

/**
 * Plays a rack out with the player's errors, what comes next being chosen again after every shot from where the balls really lie. The
 * same seed gives the same replay, in any order and on any worker.
 */
final readonly class RackPlayer
{
    private Referee $referee;
    private BreakOff $breakOff;

    /**
     * @param ShotSolver $solver of the rack's table
     * @param Rack       $rack   the table, player and game; its layout does not count
     * @param Order      $order  what is to be made
     */
    public function __construct(private ShotSolver $solver, private Rack $rack, private Order $order)
    {
        $this->referee = Referee::of($rack);
        $this->breakOff = new BreakOff($rack, $solver);
    }

    /**
     * One replay, added to a tally.
     *
     * @param Layout      $layout where the balls lie, with the cue ball
     * @param Option|null $first  the shot that is played first, if it is settled
     *
     * @return bool whether the run was finished
     */
    public function play(Tally $tally, Chooser $chooser, Layout $layout, int $seed, ?Option $first = null): bool
    {
        $random = new Randomness($seed);
        $turn = Turn::first($this->rack);
        $mask = Order::maskOf($layout);
        ++$tally->tries;
        $taken = 0;
        for ($shot = 1; !$this->order->isOut($mask); ++$shot) {
            $tally->reach($shot);
            $next = Order::balls($this->order->next($mask))[0]->value ?? 0;
            $rerack = $shot > 1 && Game::StraightPool === $this->rack->game && $this->order->isLast($mask)
                ? Rerack::of($layout, $this->rack->equipment)
                : null;
            if (null !== $rerack && ($rerack->isWhole || !$rerack->layout->has(Ball::Cue))) {
                $tally->end(RunEnd::NoShot, $next);

                return false;
            }
            if (null !== $rerack) {
                return $this->breakOff($tally, $rerack->layout, Ball::from($next), $random, $seed, $shot);
            }
            $option = $first ?? $chooser->next($layout, $seed, $turn);
            $first = null;
            if (null === $option) {
                $tally->end(RunEnd::NoShot, $next);

                return false;
            }
            $ball = $option->choice->ball;
            try {
                $player = $this->rack->player;
                $errors = $player->in($option->strike, ShotDemands::of($this->solver, $layout, $option->aimed(), $player->growth));
                $ending = $this->solver->simulator->rollouts($layout)->play(
                    $errors->disturb($option->strike, $random, $this->rack->equipment->balls->radius),
                );
            } catch (IllegalStroke) {
                // A miscue.
                $tally->end(RunEnd::Missed, $ball->value);

                return false;
            } catch (CoreError) {
                $tally->end(RunEnd::NoShot, $next);

                return false;
            }
            $verdict = $this->referee->judge($layout, $turn, $ending, $ball, $option->choice->pocket, $option->strike);
            $end = match (true) {
                false === $verdict->isWon => RunEnd::Lost,
                \in_array(Foul::Scratch, $verdict->fouls, true) => RunEnd::Scratch,
                $verdict->isFoul() => $ending->first === $ball ? RunEnd::Foul : RunEnd::Hooked,
                !$verdict->goesOn => RunEnd::Missed,
                default => null,
            };
            if (null !== $end) {
                $tally->end($end, $ball->value);

                return false;
            }
            $taken = $shot;
            // A money ball that came back early is still to be made.
            $layout = Spotting::back($ending->final, $verdict->spots, $this->rack->equipment);
            $turn = $turn->next($verdict->group);
            $after = Order::maskOf($layout);
            $tally->made += \count(Order::balls($mask & ~$after));
            $mask = $after;
            if (true === $verdict->isWon) {
                break;
            }
        }
        $tally->finish($taken);

        return true;
    }

    /** The break shot: the run is finished when the ball is made, the cue ball stays, and the rack opens. */
    private function breakOff(Tally $tally, Layout $racked, Ball $ball, Randomness $random, int $seed, int $shot): bool
    {
        $option = $this->breakOff->choose($racked, $ball, $seed);
        $ending = null === $option ? null : $this->breakOff->play($racked, $option, $random);
        $how = match (true) {
            null === $option => RunEnd::NoShot,
            null === $ending || $ending->pocketOf($ball) !== $option->choice->pocket => RunEnd::Missed,
            $ending->isScratch() => RunEnd::Scratch,
            !BreakOff::isOpen($racked, $ending) => RunEnd::NoShot,
            default => null,
        };
        if (null !== $how) {
            $tally->end($how, $ball->value);

            return false;
        }
        ++$tally->made;
        ++$tally->opened;
        $tally->thenOn += $this->breakOff->left($ending->final);
        $tally->finish($shot);

        return true;
    }
}
