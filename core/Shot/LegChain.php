<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Racking;

/**
 * A run built leg by leg: each is played from where the one before it leaves the balls when nothing goes wrong. The chain ends at a
 * leg that cannot be aimed, does not pot its ball, or scratches.
 */
final readonly class LegChain
{
    /**
     * @param list<SolvedShot> $solved those that can be played, in order; the last may end the chain
     * @param string|null      $end    why the chain ends before its last leg, a sentence; null if it does not
     */
    private function __construct(public Rack $rack, public array $solved, public ?string $end)
    {
    }

    /** @param list<ShotChoice> $choices */
    public static function play(Rack $rack, array $choices): self
    {
        $solver = new ShotSolver($rack->equipment);
        $solved = [];
        $layout = $rack->layout;
        foreach ($choices as $i => $choice) {
            // The break shot of straight pool is played into the next rack.
            if ($i > 0 && Game::StraightPool === $rack->game) {
                $layout = Racking::again($layout, $rack->equipment) ?? $layout;
            }
            try {
                $shot = $solver->solve($layout, $choice);
            } catch (CoreError $e) {
                return new self($rack, $solved, \sprintf('Leg %d cannot be played: %s', $i + 1, lcfirst($e->getMessage())));
            }
            $solved[] = $shot;
            if (!$shot->goesOn()) {
                return new self($rack, $solved, \sprintf('Leg %d ends the run: the %s %s.', $i + 1, $choice->ball->label(), $shot->isMade() ? 'drops, but the cue ball scratches' : 'stays out'));
            }
            $layout = $shot->outcome->final;
        }

        return new self($rack, $solved, null);
    }

    /** How many legs lead to a layout from which another can be played. */
    public function done(): int
    {
        return \count(array_filter($this->solved, static fn (SolvedShot $shot): bool => $shot->goesOn()));
    }

    /**
     * The rack as it lies before a leg.
     *
     * @param int $leg from 1 to done() + 1
     */
    public function before(int $leg): Rack
    {
        return $leg < 2 ? $this->rack : $this->rack->withLayout($this->solved[$leg - 2]->outcome->final);
    }

    /** Whether there is anything left to shoot before a leg. */
    public function hasNext(int $leg): bool
    {
        $layout = $this->before($leg)->layout;

        return $layout->has(Ball::Cue) && $layout->count() > 1;
    }
}
