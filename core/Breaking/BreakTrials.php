<?php

declare(strict_types=1);

namespace ZigLane\Core\Breaking;

use ZigLane\Core\Decide\PositionValue;
use ZigLane\Core\Decide\Situation;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\SimulationLimit;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\BreakShot;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Shot\ShotSolver;

/**
 * Many breaks of one stroke with a player's errors, each with a rack of its own, and what they leave him. The chance to run out from there
 * is that of his easiest pot, and then of the pace at which he clears so many balls (Decide\Pace, fitted to racks that were played out).
 *
 * Cost: three milliseconds a break and as many for what it leaves.
 */
final class BreakTrials
{
    private ?PositionValue $value = null;

    public function __construct(
        private readonly Game $game,
        private readonly BreakStroke $stroke,
        private readonly ExecutionErrors $player,
        private readonly ShotSolver $solver,
        private readonly RuleOptions $rules = new RuleOptions(),
        private readonly float $looseness = Racking::LOOSENESS,
    ) {
    }

    /**
     * Breaks number $from and so many after it: the same seed and number break the same rack.
     *
     * @throws IllegalStroke If the stroke itself would miscue
     */
    public function play(int $from, int $count, int $seed = 1): BreakTally
    {
        $tally = new BreakTally();
        for ($i = $from; $i < $from + $count; ++$i) {
            $this->add($tally, $this->one($i, $seed));
        }

        return $tally;
    }

    /** One of the breaks; null where the tip slipped off the ball, or it cannot be simulated. */
    public function one(int $number, int $seed = 1): ?BreakShot
    {
        $equipment = $this->solver->equipment;
        $meant = $this->stroke->strike($equipment);
        $random = new Randomness(($seed * 48_271 + $number * 7919 + 11) & 0x7FFFFFFF);
        try {
            return BreakShot::struck(
                Racking::of($this->game, $equipment, $random, $this->looseness), $this->stroke->spot($equipment), $meant,
                $this->solver->simulator, $equipment, $this->player, $random,
            );
        } catch (IllegalStroke|SimulationLimit) {
            return null;
        }
    }

    private function add(BreakTally $tally, ?BreakShot $break): void
    {
        ++$tally->breaks;
        if (null === $break) {
            ++$tally->dry;
            ++$tally->illegal;

            return;
        }
        $verdict = $break->verdict($this->game, $this->rules);
        $tally->made += $break->made();
        $tally->dry += 0 === $break->made() ? 1 : 0;
        $tally->scratches += $break->outcome->isScratch() ? 1 : 0;
        $tally->illegal += $verdict->isLegal ? 0 : 1;
        $tally->goesOn += $verdict->goesOn ? 1 : 0;
        $tally->won += $verdict->isWon ? 1 : 0;
        $tally->wings += $break->wingWent() ? 1 : 0;
        $tally->spread += $break->spread();
        $apex = $break->rack->without(Ball::Cue)->balls()[0];
        $tally->apexToSide += \in_array($break->outcome->pocketOf($apex), [Pocket::SideRight, Pocket::SideLeft], true) ? 1 : 0;
        foreach ($break->outcome->pocketed as $number => $pocket) {
            if ($number > 0) {
                $tally->pockets[$pocket->value] = ($tally->pockets[$pocket->value] ?? 0) + 1;
            }
        }
        $final = $break->outcome->final;
        foreach (['cue' => Ball::Cue, 'first' => $this->first($final), 'money' => $this->money()] as $what => $ball) {
            if (null !== $ball && $final->has($ball)) {
                $tally->spots[$what][] = [$final->spot($ball)->x, $final->spot($ball)->y];
            }
        }
        if ($verdict->isWon) {
            $tally->runOuts += 1.0;

            return;
        }
        if (!$verdict->goesOn || BallInHand::None !== $verdict->inHand) {
            return;
        }
        $rack = $break->rackAfter($this->game, $this->solver->equipment, $this->player, $this->rules);
        $this->value ??= new PositionValue($rack, [$this->player, $this->player], $this->solver);
        $situation = Situation::of($rack);
        $look = $this->value->raced($situation);
        $tally->shots += $look->pot >= 0.5 ? 1 : 0;
        $tally->runOuts += $this->value->race->runOut(0, $situation->left()[0], $look->pot, $look->sees);
    }

    /** The ball that comes next, in rotation. */
    private function first(Layout $final): ?Ball
    {
        if (!$this->game->rules()->isRotation) {
            return null;
        }

        return $this->game->rules()->lying($final)[0] ?? null;
    }

    private function money(): ?Ball
    {
        return $this->game->rules()->moneyBall;
    }
}
