<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Rerack;

/**
 * A run built leg by leg: each is played from where the one before it leaves the balls when nothing goes wrong. The chain ends at a
 * leg that cannot be aimed, does not pot its ball, or scratches. Everything that follows a shot with another (`after`) does it here,
 * so that the same legs begin at the same spots wherever they are drawn.
 */
final readonly class LegChain
{
    /**
     * @param list<Rack>       $before the rack before each leg that was tried, and before the one after the last that goes on
     * @param list<SolvedShot> $solved those that can be played, in order; the last may end the chain
     * @param Fact|null        $end    why the chain ends before its last leg; null if it does not
     */
    private function __construct(private array $before, public array $solved, public ?Fact $end)
    {
    }

    /** @param list<ShotChoice> $choices */
    public static function play(Rack $rack, array $choices): self
    {
        $solver = new ShotSolver($rack->equipment);
        $before = [$rack];
        $solved = [];
        foreach ($choices as $i => $choice) {
            try {
                $shot = $solver->solve($before[$i]->layout, $choice);
            } catch (CoreError $e) {
                return new self($before, $solved, new Fact('chain.cannotBePlayed', ['leg' => $i + 1, 'why' => $e->fact()]));
            }
            $solved[] = $shot;
            if (!$shot->goesOn()) {
                return new self(
                    $before,
                    $solved,
                    new Fact($shot->isMade() ? 'chain.scratches' : 'chain.staysOut', ['leg' => $i + 1, 'ball' => $choice->ball]),
                );
            }
            $before[] = self::after($rack, $shot->outcome->final);
        }

        return new self($before, $solved, null);
    }

    /** The rack of the next shot: the balls as one left them, and in straight pool the next fourteen racked when one is left. */
    public static function after(Rack $rack, Layout $final): Rack
    {
        $rerack = $rack->game->rules()->countsBalls ? Rerack::of($final, $rack->equipment) : null;

        return null === $rerack
            ? $rack->afterShot($final)
            : $rack->afterShot($rerack->layout)->inHand($rerack->inHand);
    }

    /** How many legs lead to a layout from which another can be played. */
    public function done(): int
    {
        return \count($this->before) - 1;
    }

    /**
     * The rack as it lies before a leg.
     *
     * @param int $leg from 1 to done() + 1
     */
    public function before(int $leg): Rack
    {
        return $this->before[max(0, min($leg - 1, \count($this->before) - 1))];
    }

    /** Whether there is anything left to shoot before a leg. */
    public function hasNext(int $leg): bool
    {
        $layout = $this->before($leg)->layout;

        return $layout->has(Ball::Cue) && $layout->count() > 1;
    }
}
