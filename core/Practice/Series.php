<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;

/** The tries of one player in a drill, one after the other: what is set up next, and what he has. */
final class Series
{
    public float $points = 0.0;
    public int $tries = 0;
    /** Tries in which everything was met. */
    public int $whole = 0;
    public int $step = 0;
    /** Where along the table the cue ball stopped last, diamonds; null before any that counts. */
    public ?float $last = null;
    private ?Layout $left = null;
    private bool $isEnded = false;

    private readonly SetUp $setUp;

    /** @param bool $isEndless trained until it works: the number of tries does not end it, nor a try that fails */
    public function __construct(
        private readonly Drill $drill,
        private readonly Equipment $equipment,
        private readonly int $seed,
        private readonly bool $isEndless = false,
    ) {
        $this->setUp = new SetUp($drill, $equipment);
    }

    /** The points: of a cue ball that moves away the step where it stands. */
    public function score(): float
    {
        return null === $this->drill->moves ? $this->points : (float) $this->step;
    }

    public function isOver(): bool
    {
        return !$this->isEndless && ($this->isEnded || $this->tries >= $this->drill->tries);
    }

    /** Whether the next try is set up, and not played from where the balls lie. */
    public function isSetUp(): bool
    {
        return null === $this->left;
    }

    /**
     * The try that is next.
     *
     * @throws IllegalLayout If the balls cannot be set up
     */
    public function attempt(): Attempt
    {
        return null === $this->left
            ? $this->setUp->attempt($this->seed, $this->tries + 1, $this->step, $this->last)
            : new Attempt($this->left, $this->tries + 1, $this->step, $this->last);
    }

    /**
     * What is set up in the tries after this one, as far as it does not hang on them.
     *
     * @return list<Layout>
     *
     * @throws IllegalLayout If the balls cannot be set up
     */
    public function later(int $most): array
    {
        if ($this->drill->goesOn) {
            return [];
        }
        $layouts = [];
        for ($number = $this->tries + 2; $number <= $this->tries + 1 + $most; ++$number) {
            $layouts[] = $this->setUp->attempt($this->seed, $number, $this->step)->layout;
        }

        return $layouts;
    }

    /**
     * @param Layout|null $after the balls that lie on the table, as far as it is known
     * @param int         $made  balls of a try that is counted
     */
    public function add(TryScore $score, ?Layout $after, int $made = 0): void
    {
        ++$this->tries;
        $this->points += $this->drill->task->isCounted() ? $made + $score->points : $score->points;
        $this->whole += $score->isWhole ? 1 : 0;
        if (null !== $this->drill->moves) {
            $this->step = max(0, min($this->drill->steps, $this->step + ($score->isWhole ? 1 : -1)));
        }
        $fails = !$score->isWhole && ($this->drill->goesOn || $this->drill->untilMiss);
        $this->isEnded = $this->isEnded || $fails;
        $this->last = $fails || null === $after || !$after->has(Ball::Cue)
            ? null
            : $after->spot(Ball::Cue)->inDiamonds($this->equipment->table)[0];
        $this->left = $this->drill->goesOn && !$fails ? $after : null;
    }
}
