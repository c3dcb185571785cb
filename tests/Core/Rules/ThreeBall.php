<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Rules;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\Games\Rotation;
use ZigLane\Core\Rules\RuleOptions;

/** A game that nobody has asked for: the lowest of three balls first, whatever drops counts, the 3 wins but on the break. */
final readonly class ThreeBall extends Rotation
{
    public function __construct()
    {
        parent::__construct(Ball::Three, [1, 2], [2.5, 8.0], []);
    }

    public function anyCounts(RuleOptions $options): bool
    {
        return true;
    }

    public function places(Randomness $random): array
    {
        return [0 => Ball::One];
    }

    protected function winsEarly(RuleOptions $options): bool
    {
        return true;
    }

    protected function winsOnBreak(): bool
    {
        return false;
    }
}
