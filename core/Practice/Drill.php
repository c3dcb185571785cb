<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;

/** A drill at one of its levels: what is set up, what is to be done, and what it counts. Lengths in diamonds. */
final readonly class Drill
{
    /** Elevation of a level cue, degrees. */
    private const LEVEL = 2.0;

    /**
     * @param string                   $text      for the player, of a coach
     * @param array<int, Place>        $places    by the number of the ball; 0 is the cue ball
     * @param Ball|null                $ball      that is potted or met; null for any
     * @param Pocket|null              $pocket    null for any
     * @param int                      $before    cushions of the cue ball before it meets a ball, at the least
     * @param int                      $cushions  cushions of the cue ball in all, at the least
     * @param float                    $done      points for what is to be done alone
     * @param list<Target>             $targets
     * @param bool                     $goesOn    the next try is played from where the balls stop, and the first that fails ends it
     * @param bool                     $untilMiss the first try that fails ends it, though it is set up again
     * @param float                    $pass      points that pass it
     * @param array{float, float}|null $moves     diamonds, along and across, by which the cue ball's place moves away after a try that
     *                                            was done, and back after one that was not; the points are the last step
     * @param int                      $steps     at the most
     * @param Tip|null                 $tip       that is suggested; null: the solver's
     * @param float|null               $speed     m/s just after the hit; likewise
     * @param Game|null                $game      whose rack is broken, or by whose order balls are made
     * @param bool                     $isRacked  fourteen balls of straight pool are racked
     * @param list<Level>              $levels
     */
    public function __construct(
        public string $name,
        public string $text,
        public Skill $skill,
        public Task $task,
        public array $places,
        public ?Ball $ball,
        public ?Pocket $pocket,
        public int $before,
        public int $cushions,
        public float $done,
        public array $targets,
        public bool $goesOn,
        public bool $untilMiss,
        public int $tries,
        public float $pass,
        public ?array $moves,
        public int $steps,
        public ?Tip $tip,
        public ?float $speed,
        public ?Game $game,
        public bool $isRacked,
        public int $minutes,
        public array $levels = [],
    ) {
    }

    /** Whether every try is set up in the same way. */
    public function isFixed(): bool
    {
        return null === $this->moves
            && !$this->goesOn
            && [] === array_filter($this->places, static fn (Place $one): bool => !$one->isFixed());
    }

    /** Whether what is set up is drawn anew for each try. */
    public function isDrawn(): bool
    {
        return [] !== array_filter($this->places, static fn (Place $one): bool => !$one->isInHand && !$one->isFixed());
    }

    /** Whether each try has to pass the one before. */
    public function isLadder(): bool
    {
        return [] !== array_filter($this->targets, static fn (Target $target): bool => TargetKind::Past === $target->kind);
    }

    /** The shot that is suggested whole: a ball called in a pocket, with tip and speed; null where a part of it is left open. */
    public function suggested(): ?ShotChoice
    {
        return Task::Pot !== $this->task || null === $this->ball || null === $this->pocket || null === $this->tip || null === $this->speed
            ? null
            : new ShotChoice($this->ball, $this->pocket, new Stroke($this->tip, $this->speed, self::LEVEL));
    }

    /** The most points that a try can bring; of a run the balls. */
    public function mostOfTry(): float
    {
        if (Task::Run === $this->task) {
            return \count($this->places) - (isset($this->places[0]) ? 1 : 0);
        }

        return $this->done + array_sum(array_map(static fn (Target $target): float => $target->most(), $this->targets));
    }

    /** The most points of all tries; null for a break, where nobody knows. */
    public function most(): ?float
    {
        return match (true) {
            Task::Break === $this->task => null,
            null !== $this->moves => (float) min($this->steps, $this->tries),
            default => $this->tries * $this->mostOfTry(),
        };
    }
}
