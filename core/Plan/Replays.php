<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Error\IllegalStroke;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Foul;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Shot\ShotSolver;

/**
 * A rack played out many times with the player's errors, what comes next being chosen again after every shot from where the balls really
 * lie: how often the run is finished, and how it ends otherwise. The same seeds give the same replays, in any order and on any worker.
 *
 * @phpstan-type Numbers array{tries: int, finished: int, ended: array<string, int>, endedOn: array<int, int>, made: int, reached: array<int, int>, finishedIn: array<int, int>, opened?: int, thenOn?: float|int}
 */
final class Replays
{
    /** How a run ends that is not finished. `hooked`: the shot that was left could not be reached straight; `noShot`: nothing to play. */
    public const ENDS = ['missed', 'scratch', 'foul', 'hooked', 'noShot', 'lost'];

    public int $tries = 0;
    public int $finished = 0;

    /** @var array<string, int> how the others ended */
    public array $ended = ['missed' => 0, 'scratch' => 0, 'foul' => 0, 'hooked' => 0, 'noShot' => 0, 'lost' => 0];

    /** @var array<int, int> tries that ended on a ball, by its number */
    public array $endedOn = [];

    /** Balls made in all tries together. */
    public int $made = 0;

    /** @var array<int, int> tries that came to the shot of a number, from 1 on */
    public array $reached = [];

    /** @var array<int, int> finished tries, by the number of their shots */
    public array $finishedIn = [];

    /** Racks that a break shot of straight pool opened, and the sum of the chances of the easiest pot that was left in each. */
    public int $opened = 0;
    public float $thenOn = 0.0;

    /** How the run goes on after the break shot: the mean chance of the easiest pot in the racks that it opened; null if it opened none. */
    public function meanThenOn(): ?float
    {
        return 0 === $this->opened ? null : $this->thenOn / $this->opened;
    }

    public function chance(): float
    {
        return 0 === $this->tries ? 0.0 : $this->finished / $this->tries;
    }

    /** Chance to finish of the tries that came to a shot, from 1 on; null if none did. A run in which two balls drop at once has fewer shots. */
    public function chanceFrom(int $shot): ?float
    {
        $finished = array_sum(array_filter($this->finishedIn, static fn (int $shots): bool => $shots >= $shot, \ARRAY_FILTER_USE_KEY));

        return isset($this->reached[$shot]) ? $finished / $this->reached[$shot] : null;
    }

    /** @return array{float, float} at 95 percent */
    public function interval(): array
    {
        return 0 === $this->tries ? [0.0, 1.0] : Trials::interval($this->finished, $this->tries);
    }

    public function plus(self $other): self
    {
        $sum = clone $this;
        $sum->tries += $other->tries;
        $sum->finished += $other->finished;
        $sum->made += $other->made;
        $sum->opened += $other->opened;
        $sum->thenOn += $other->thenOn;
        foreach ($other->ended as $how => $count) {
            $sum->ended[$how] += $count;
        }
        foreach ($other->endedOn as $ball => $count) {
            $sum->endedOn[$ball] = ($sum->endedOn[$ball] ?? 0) + $count;
        }
        foreach ($other->reached as $shot => $count) {
            $sum->reached[$shot] = ($sum->reached[$shot] ?? 0) + $count;
        }
        foreach ($other->finishedIn as $shots => $count) {
            $sum->finishedIn[$shots] = ($sum->finishedIn[$shots] ?? 0) + $count;
        }

        return $sum;
    }

    /**
     * One replay more.
     *
     * @param ShotSolver  $solver of the rack's table
     * @param Rack        $rack   the table, player and game; its layout does not count
     * @param Group|null  $group  the group that is played, in eight-ball
     * @param Order       $order  what is to be made
     * @param Layout      $layout where the balls lie, with the cue ball
     * @param Option|null $first  the shot that is played first, if it is settled
     */
    public function play(Chooser $chooser, ShotSolver $solver, Rack $rack, ?Group $group, Order $order, Layout $layout, int $seed, ?Option $first = null): bool
    {
        $random = new Randomness($seed);
        $referee = new Referee($rack->game, $rack->rules);
        $mask = self::bits($layout);
        ++$this->tries;
        $taken = 0;
        for ($shot = 1; !$order->isOut($mask); ++$shot) {
            $this->reached[$shot] = ($this->reached[$shot] ?? 0) + 1;
            $next = Order::balls($order->next($mask))[0]->value ?? 0;
            $racked = $shot > 1 && Game::StraightPool === $rack->game && $order->isLast($mask) ? Racking::again($layout, $rack->equipment) : null;
            if (null !== $racked) {
                return $this->breakOff(new BreakOff($rack, $solver), $racked, Ball::from($next), $random, $seed, $shot);
            }
            $option = $first ?? $chooser->next($layout, $seed);
            $first = null;
            if (null === $option) {
                return $this->end('noShot', $next);
            }
            $ball = $option->choice->ball;
            try {
                $ending = $solver->simulator->rollouts($layout)->play($rack->player->disturb($option->strike, $random, $rack->equipment->balls->radius));
            } catch (IllegalStroke) {
                // A miscue.
                return $this->end('missed', $ball->value);
            } catch (CoreError) {
                return $this->end('noShot', $next);
            }
            $verdict = $referee->judge($layout, $group, $ending, $ball, $option->choice->pocket);
            if (false === $verdict->isWon) {
                return $this->end('lost', $ball->value);
            }
            if ($verdict->isFoul()) {
                return $this->end(\in_array(Foul::Scratch, $verdict->fouls, true) ? 'scratch' : ($ending->first === $ball ? 'foul' : 'hooked'), $ball->value);
            }
            if (!$verdict->goesOn) {
                return $this->end('missed', $ball->value);
            }
            $taken = $shot;
            $layout = $ending->final;
            $after = self::bits($layout);
            $this->made += \count(Order::balls($mask & ~$after));
            $mask = $after;
            if (true === $verdict->isWon) {
                break;
            }
            if ([] !== $verdict->spots) {
                // A money ball that came back needs a free place on the long string: the run is taken to end here.
                return $this->end('missed', $verdict->spots[0]->value);
            }
        }

        return $this->finish($taken);
    }

    /** The break shot: the run is finished when the ball is made, the cue ball stays, and the rack opens. */
    private function breakOff(BreakOff $break, Layout $racked, Ball $ball, Randomness $random, int $seed, int $shot): bool
    {
        $option = $break->choose($racked, $ball, $seed);
        $ending = null === $option ? null : $break->play($racked, $option, $random);
        $how = match (true) {
            null === $option => 'noShot',
            null === $ending || $ending->pocketOf($ball) !== $option->choice->pocket => 'missed',
            $ending->isScratch() => 'scratch',
            !BreakOff::isOpen($racked, $ending) => 'noShot',
            default => null,
        };
        if (null !== $how) {
            return $this->end($how, $ball->value);
        }
        ++$this->made;
        ++$this->opened;
        $this->thenOn += $break->left($ending->final);

        return $this->finish($shot);
    }

    /** @param int $shots that it took */
    private function finish(int $shots): bool
    {
        ++$this->finished;
        $this->finishedIn[$shots] = ($this->finishedIn[$shots] ?? 0) + 1;

        return true;
    }

    private function end(string $how, int $ball): bool
    {
        ++$this->ended[$how];
        $this->endedOn[$ball] = ($this->endedOn[$ball] ?? 0) + 1;

        return false;
    }

    /** The object balls of a layout, as bits. */
    public static function bits(Layout $layout): int
    {
        $mask = 0;
        foreach ($layout->balls() as $ball) {
            $mask |= Ball::Cue === $ball ? 0 : 1 << $ball->value;
        }

        return $mask;
    }

    /** @return Numbers */
    public function toArray(): array
    {
        return ['tries' => $this->tries, 'finished' => $this->finished, 'ended' => $this->ended, 'endedOn' => $this->endedOn, 'made' => $this->made, 'reached' => $this->reached, 'finishedIn' => $this->finishedIn, 'opened' => $this->opened, 'thenOn' => $this->thenOn];
    }

    /** @param Numbers $numbers as toArray gives them */
    public static function fromArray(array $numbers): self
    {
        $replays = new self();
        $replays->tries = $numbers['tries'];
        $replays->finished = $numbers['finished'];
        $replays->ended = $numbers['ended'] + $replays->ended;
        $replays->endedOn = $numbers['endedOn'];
        $replays->made = $numbers['made'];
        $replays->reached = $numbers['reached'];
        $replays->finishedIn = $numbers['finishedIn'];
        $replays->opened = $numbers['opened'] ?? 0;
        $replays->thenOn = (float) ($numbers['thenOn'] ?? 0.0);

        return $replays;
    }
}
