<?php

declare(strict_types=1);

namespace ZigLane\Core\Calibration;

use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/**
 * Shots that anyone can do with a tape and a stopwatch, each of which teaches something of a table. Common practice: what players do when
 * they come to a table that they do not know.
 */
enum UsualTests: string
{
    case Roll = 'roll';
    case Lag = 'lag';
    case Stop = 'stop';
    case TwoRails = 'two-rails';
    case Running = 'running';
    case Reverse = 'reverse';
    case Follow = 'follow';
    case Stun = 'stun';
    case Along = 'along';
    case Across = 'across';
    case SpinningSlow = 'spinning-slow';
    case Squirt = 'squirt';

    /** @return list<Parameter> what it teaches most */
    public function teaches(): array
    {
        return match ($this) {
            self::Roll => [Parameter::Roll],
            self::Lag => [Parameter::CushionRestitution, Parameter::Roll],
            self::Stop => [Parameter::Slide],
            self::TwoRails, self::Running, self::Reverse => [Parameter::CushionFriction],
            self::Follow => [Parameter::BallRestitution],
            self::Stun => [Parameter::BallFriction],
            self::Along, self::Across => [Parameter::SlopeLong, Parameter::SlopeShort],
            self::SpinningSlow => [Parameter::SpinDecay],
            self::Squirt => [Parameter::EndMassRatio],
        };
    }

    /** @return array<int, array{float, float}> spots in diamonds, keyed by the ball's number */
    private function spots(): array
    {
        return match ($this) {
            self::Roll, self::Along => [0 => [0.5, 2.0]],
            self::Across => [0 => [4.5, 0.5]],
            self::Lag => [0 => [2.0, 2.0]],
            // Two balls 0.6 m apart on a large table.
            self::Stop => [0 => [3.0, 2.0], 1 => [4.9, 2.0]],
            self::TwoRails => [0 => [1.0, 2.5]],
            self::Running, self::Reverse => [0 => [1.0, 1.9]],
            self::Follow => [0 => [2.0, 2.0], 1 => [4.0, 2.0]],
            self::Stun => [0 => [3.0, 2.0], 1 => [4.0, 2.1]],
            self::SpinningSlow => [0 => [1.5, 1.5]],
            self::Squirt => [0 => [0.5, 2.0]],
        };
    }

    public function layout(TableProfile $table): Layout
    {
        $layout = Layout::empty();
        foreach ($this->spots() as $ball => [$long, $short]) {
            $layout = $layout->with(Ball::from($ball), Spot::diamonds($long, $short, $table));
        }

        return $layout;
    }

    /** As it is to be struck; the speed is about what is meant, and is not known. */
    public function strike(float $endMassRatio = Cue::END_MASS_RATIO[0]): Strike
    {
        [$direction, $speed, $side, $height] = match ($this) {
            self::Roll => [0.0, 0.57, 0.0, 0.4],
            self::Along => [0.0, 0.4, 0.0, 0.4],
            self::Across => [90.0, 0.36, 0.0, 0.4],
            self::Lag => [0.0, 1.5, 0.0, 0.4],
            self::Stop => [0.0, 1.6, 0.0, 0.0],
            self::TwoRails => [38.0, 2.2, 0.0, 0.3],
            self::Running => [45.0, 1.6, -0.34, 0.2],
            self::Reverse => [45.0, 1.6, 0.34, 0.2],
            self::Follow => [0.0, 1.4, 0.0, 0.4],
            self::Stun => [0.0, 1.0, 0.0, 0.0],
            self::SpinningSlow => [60.0, 0.9, 0.4, 0.2],
            self::Squirt => [0.0, 2.4, 0.34, 0.2],
        };

        return Strike::degrees($direction, $speed, $side, $height, 0.0, $endMassRatio);
    }

    /** @return list<Ball> whose end is to be measured */
    public function ends(): array
    {
        return \count($this->spots()) > 1 ? [Ball::Cue, Ball::One] : [Ball::Cue];
    }

    /** Whether the cue ball must not meet a cushion. */
    public function isClear(): bool
    {
        return \in_array($this, [self::Roll, self::Along, self::Across], true);
    }

    /** Whether the cue ball's cushion points are worth more than where it stops. */
    public function wantsCushions(): bool
    {
        return \in_array($this, [self::TwoRails, self::Running, self::Reverse, self::SpinningSlow, self::Squirt], true);
    }

    public function wantsSeconds(): bool
    {
        return \in_array($this, [self::Roll, self::Lag], true);
    }
}
