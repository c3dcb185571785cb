<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Rail;

/** How a shot makes its ball other than straight, by the contacts of its simulation. */
final readonly class IndirectWay
{
    /**
     * @param list<Ball> $over  the balls between the cue ball and the one that is made, in the order of their contacts
     * @param list<Rail> $rails kick: those that the cue ball meets before any ball; bank: those that the ball meets on its way
     */
    public function __construct(public SolvedShot $shot, public IndirectKind $kind, public array $over, public array $rails)
    {
    }

    public function fact(): Fact
    {
        return new Fact('indirect.'.$this->kind->value, ['rails' => $this->rails, 'over' => $this->over]);
    }
}
