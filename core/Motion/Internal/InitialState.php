<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

/**
 * The balls of a shot, and where they lie before it.
 *
 * @internal
 */
final readonly class InitialState
{
    /** @var array<int, float> metres along the table, of each ball, from the head to the foot */
    public array $x;

    /** @var array<int, float> and across it */
    public array $y;

    /** @var list<Body> */
    public array $bodies;

    /**
     * @param list<array{float, float}> $spots     metres
     * @param bool                      $isTracked whether the pieces of their paths are kept
     * @param int                       $cue       which of them is the cue ball; -1 for none
     */
    public function __construct(Meetings $meetings, array $spots, bool $isTracked, int $cue = -1)
    {
        $along = array_column($spots, 0);
        asort($along);
        $this->x = $along;
        $this->y = array_column($spots, 1);
        $bodies = [];
        foreach ($spots as $i => [$x, $y]) {
            $bodies[] = $body = new Body($meetings->conditions, $meetings, $i, $x, $y, $isTracked);
            $body->isCue = $i === $cue;
        }
        $this->bodies = $bodies;
    }

    /**
     * Puts balls back that a shot has moved.
     *
     * @param list<Body> $moved
     */
    public function putBack(array $moved): void
    {
        foreach ($moved as $body) {
            $body->lie($this->x[$body->index], $this->y[$body->index]);
        }
    }
}
