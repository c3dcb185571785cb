<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Error\IllegalStroke;
use ZigLane\Core\Plan\Internal\Policy;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Shot\Trials;

/**
 * A rack played out many times with the player's errors, planned again after every shot from where the balls really lie: how often the
 * run is finished, and how it ends otherwise.
 */
final class Replays
{
    public const ENDS = ['missed', 'scratch', 'foul', 'noShot', 'lost'];

    public int $tries = 0;
    public int $finished = 0;

    /** @var array<string, int> how the others ended */
    public array $ended = ['missed' => 0, 'scratch' => 0, 'foul' => 0, 'noShot' => 0, 'lost' => 0];

    /** @var array<int, int> tries that ended on a ball, by its number */
    public array $endedOn = [];

    /** @var list<int> balls made in each try */
    public array $made = [];

    public function chance(): float
    {
        return 0 === $this->tries ? 0.0 : $this->finished / $this->tries;
    }

    /** @return array{float, float} at 95 percent */
    public function interval(): array
    {
        return Trials::interval($this->finished, max(1, $this->tries));
    }

    public function plus(self $other): self
    {
        $sum = clone $this;
        $sum->tries += $other->tries;
        $sum->finished += $other->finished;
        foreach ($other->ended as $how => $count) {
            $sum->ended[$how] += $count;
        }
        foreach ($other->endedOn as $ball => $count) {
            $sum->endedOn[$ball] = ($sum->endedOn[$ball] ?? 0) + $count;
        }
        $sum->made = [...$sum->made, ...$other->made];

        return $sum;
    }

    /**
     * @internal
     *
     * @param Option|null $first the shot that is played first, if it is settled
     */
    public function play(Policy $policy, Layout $layout, int $seed, ?Option $first = null): bool
    {
        $random = new Randomness($seed);
        $rack = $policy->values->survey->rack;
        $order = $policy->values->order;
        $set = Policy::bits($layout);
        $start = \count(Order::balls($set));
        ++$this->tries;
        while (!$order->isOut($set)) {
            $policy = $policy->on($layout);
            $option = $first ?? $policy->options($layout, $set, self::OPTIONS, self::NOISE, $seed)[0] ?? null;
            $first = null;
            $next = Order::balls($order->next($set))[0]->value;
            if (null === $option || $option->value <= 0.0) {
                return $this->end('noShot', $next, $start, $set);
            }
            try {
                $ending = $policy->values->survey->simulator->rollouts($layout)->play($rack->player->disturb($option->strike, $random, $rack->balls->radius));
            } catch (IllegalStroke) {
                return $this->end('missed', $option->choice->ball->value, $start, $set);
            }
            $after = Policy::bits($ending->final);
            $legal = Policy::isLegal($order, $set, $option->choice, $ending);
            $won = $order->isWon($set, $after);
            if (false === $won || (true === $won && ($ending->isScratch() || !$legal))) {
                return $this->end('lost', $option->choice->ball->value, $start, $set);
            }
            if ($ending->isScratch()) {
                return $this->end('scratch', $option->choice->ball->value, $start, $set);
            }
            if (!$legal) {
                return $this->end('foul', $option->choice->ball->value, $start, $set);
            }
            if (true === $won) {
                $set = $after;
                break;
            }
            if ($ending->pocketOf($option->choice->ball) !== $option->choice->pocket) {
                return $this->end('missed', $option->choice->ball->value, $start, $set);
            }
            $layout = $ending->final;
            $set = $after;
        }
        ++$this->finished;
        $this->made[] = $start - \count(Order::balls($set));

        return true;
    }

    private function end(string $how, int $ball, int $start, int $set): bool
    {
        ++$this->ended[$how];
        $this->endedOn[$ball] = ($this->endedOn[$ball] ?? 0) + 1;
        $this->made[] = $start - \count(Order::balls($set));

        return false;
    }

    /** Shots that are tried out before each stroke, and noisy plays of each. */
    private const OPTIONS = 4;
    private const NOISE = 8;
}
