<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Shot\ShotChoice;

/** What a person decides for the planner: legs that stay as they are, pockets that are not to be used, an order of balls. */
final readonly class PlanConstraints
{
    /**
     * @param list<ShotChoice>          $locked    legs that stay, each when its ball's turn comes
     * @param list<array{Ball, Pocket}> $forbidden ways that are not to be planned
     * @param list<array{Ball, Ball}>   $before    the first of each pair before the second
     */
    public function __construct(public array $locked = [], public array $forbidden = [], public array $before = [])
    {
    }

    public function areNone(): bool
    {
        return [] === $this->locked && [] === $this->forbidden && [] === $this->before;
    }

    public function forbids(Ball $ball, Pocket $pocket): bool
    {
        $locked = $this->lockedLeg($ball);
        if (null !== $locked && $locked->pocket !== $pocket) {
            return true;
        }

        return \in_array([$ball, $pocket], $this->forbidden, true);
    }

    public function lockedLeg(Ball $ball): ?ShotChoice
    {
        foreach ($this->locked as $choice) {
            if ($choice->ball === $ball) {
                return $choice;
            }
        }

        return null;
    }
}
