<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules\Games;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Rules\RuleOptions;

/** Ten-ball: ball and pocket are called; the 10 wins whenever it drops as called, or only as the last ball; never on the break. */
final readonly class TenBall extends Rotation
{
    public function __construct()
    {
        parent::__construct(Ball::Ten, [1, 2, 3, 4], [2.5, 9.0], ['tenLast']);
    }

    public function call(RuleOptions $options): Fact
    {
        return new Fact('rules.calledTen');
    }

    protected function winsEarly(RuleOptions $options): bool
    {
        return !$options->tenLast;
    }

    protected function winsOnBreak(): bool
    {
        return false;
    }
}
