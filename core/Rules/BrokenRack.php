<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;

/** An opening break, as a game judges it. */
final readonly class BrokenRack
{
    /** So many object balls driven to a cushion make a break legal that pockets none, but in straight pool. */
    private const DRIVEN = 4;

    /**
     * @param list<Ball> $made        the object balls that dropped
     * @param int        $driven      object balls that were driven to a cushion
     * @param bool       $cueIsDriven the cue ball was
     */
    private function __construct(
        public bool $isScratch,
        public array $made,
        public int $driven,
        public bool $cueIsDriven,
        public RuleOptions $options,
    ) {
    }

    public static function of(Ending $ending, RuleOptions $options): self
    {
        $driven = [];
        $cueIsDriven = false;
        foreach ($ending->driven as [$ball]) {
            $cueIsDriven = $cueIsDriven || Ball::Cue === $ball;
            if (Ball::Cue !== $ball) {
                $driven[$ball->value] = true;
            }
        }

        return new self($ending->isScratch(), Referee::made($ending), \count($driven), $cueIsDriven, $options);
    }

    /** A ball dropped, or enough were driven to a cushion. */
    public function isOpen(): bool
    {
        return [] !== $this->made || $this->driven >= self::DRIVEN;
    }

    public function dropped(Ball $ball): bool
    {
        return \in_array($ball, $this->made, true);
    }

    /** @return list<Foul> the scratch, and where it counts as one a break that is not legal */
    public function fouls(bool $isSoft): array
    {
        return [...($this->isScratch ? [Foul::Scratch] : []), ...($isSoft ? [Foul::NoCushion] : [])];
    }
}
