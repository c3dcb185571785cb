<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Foul;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Racking;
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
    /** Width of the grid on which the balls of an opened rack are taken to lie, metres. */
    private const GRID = 0.05;

    private Referee $referee;
    private BreakOff $breakOff;
    private ThreeAhead $further;

    /**
     * @param ShotSolver $solver of the rack's table
     * @param Rack       $rack   the table, player and game; its layout does not count
     * @param Order      $order  what is to be made
     */
    public function __construct(private ShotSolver $solver, private Rack $rack, private Order $order)
    {
        $this->referee = Referee::of($rack);
        $this->breakOff = new BreakOff($rack, $solver);
        $this->further = new ThreeAhead($rack, $solver, grid: self::GRID, isQuick: true);
    }

    /**
     * One replay, added to a tally.
     *
     * @param Layout      $layout where the balls lie, with the cue ball
     * @param Option|null $first  the shot that is played first, if it is settled
     * @param Turn|null   $turn   by what that is judged; null: by the rack
     *
     * @return bool whether the run was finished
     */
    public function play(Tally $tally, Chooser $chooser, Layout $layout, int $seed, ?Option $first = null, ?Turn $turn = null): bool
    {
        $random = new Randomness($seed);
        $turn ??= Turn::first($this->rack);
        $mask = Order::maskOf($layout);
        ++$tally->tries;
        $tally->isOverRacks = $this->rack->game->rules()->countsBalls;
        $before = $tally->made;
        try {
            return $this->run($tally, $chooser, $layout, $random, $seed, $first, $turn, $mask);
        } finally {
            $tally->squares += ($tally->made - $before) ** 2;
        }
    }

    private function run(
        Tally $tally,
        Chooser $chooser,
        Layout $layout,
        Randomness $random,
        int $seed,
        ?Option $first,
        Turn $turn,
        int $mask,
    ): bool {
        $taken = 0;
        // Ends: a shot that takes no ball off returns.
        for ($shot = 1; !$this->order->isOut($mask); ++$shot) {
            $tally->reach($shot);
            $next = Order::balls($this->order->next($mask))[0]->value ?? 0;
            $racked = $this->racked($layout, $mask, $shot);
            if (null !== $racked) {
                $break = $racked->has(Ball::Cue) ? StraightRun::besideRack($racked, $this->rack->equipment) : null;
                if (null === $break) {
                    $tally->end(RunEnd::NoShot, $next);

                    return false;
                }
                $choosing = self::choosing($seed, $shot);
                $option = $first ?? $this->breakOff->choose($racked, $break, $choosing);

                return $this->breakOff($tally, $racked, $break, $option, $random, $choosing, $shot);
            }
            $option = $first ?? $chooser->next($layout, self::choosing($seed, $shot), $turn);
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

    /**
     * The seed by which a shot is chosen: never that of the errors it is then played with, or the choice would know them.
     */
    private static function choosing(int $seed, int $shot): int
    {
        return ($seed * 48_271 + 104_729 * $shot + 11) & 0x7FFFFFFF;
    }

    /** Straight pool: fourteen racked for a break shot, as they lie or after the fourteenth ball; null where it is not the time for it. */
    private function racked(Layout $layout, int $mask, int $shot): ?Layout
    {
        if (!$this->rack->game->rules()->countsBalls) {
            return null;
        }
        if (1 === $shot && null !== Racking::racked($layout, $this->rack->equipment)) {
            return $layout;
        }

        // Whichever ball is left: fourteen are racked for it, also where it is not the one that was meant for the break.
        return $shot > 1 && 1 === \count(Order::balls($mask)) ? Rerack::of($layout, $this->rack->equipment)?->layout : null;
    }

    /** The break shot: the run of the rack is finished when the ball is made, the cue ball stays, and the rack opens; then it goes on. */
    private function breakOff(
        Tally $tally,
        Layout $racked,
        Ball $ball,
        ?Option $option,
        Randomness $random,
        int $seed,
        int $shot,
    ): bool {
        $ending = null === $option ? null : $this->breakOff->play($racked, $option, $random);
        $how = match (true) {
            null === $option => RunEnd::NoShot,
            null === $ending || $ending->pocketOf($ball) !== $option->choice->pocket => RunEnd::Missed,
            $ending->isScratch() => RunEnd::Scratch,
            !BreakOff::isOpen($racked, $ending) => RunEnd::NoShot,
            default => null,
        };
        if (null === $ending || RunEnd::Missed === $how || RunEnd::Scratch === $how) {
            $tally->end($how, $ball->value);

            return false;
        }
        $tally->made += $racked->count() - $ending->final->count();
        if (null === $how) {
            ++$tally->opened;
            $tally->thenOn += $this->breakOff->left($ending->final);
            $tally->finish($shot);
        } else {
            $tally->end($how, $ball->value);
        }
        $this->further($tally, $ending->final, $random, $seed);

        return null === $how;
    }

    /** The balls of the next rack, by a sound player's way (ThreeAhead), down to its last. */
    private function further(Tally $tally, Layout $layout, Randomness $random, int $seed): void
    {
        $turn = new Turn();
        // Ends: each round takes a ball away, or is the last.
        while ($layout->has(Ball::Cue) && $layout->count() > 2) {
            $option = $this->further->next($layout, $seed, $turn);
            $ending = null === $option ? null : $this->breakOff->play($layout, $option, $random);
            if (null === $option || null === $ending) {
                return;
            }
            $verdict = $this->referee->judge($layout, $turn, $ending, $option->choice->ball, $option->choice->pocket, $option->strike);
            if (!$verdict->goesOn) {
                return;
            }
            $tally->made += $layout->count() - $ending->final->count();
            $layout = $ending->final;
        }
    }
}
