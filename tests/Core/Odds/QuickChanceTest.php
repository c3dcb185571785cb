<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Odds;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Odds\QuickChance;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Equipment;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;

/** The chance of a pot from the edges of its window, held against many tries. */
final class QuickChanceTest extends TestCase
{
    /** Within 3 points of 2,000 tries on 95 % of 200 random shots; the tries themselves are off by up to 2 points. */
    public function testItAgreesWithTwoThousandTriesOnTwoHundredRandomShots(): void
    {
        $errors = new ExecutionErrors();
        $offs = [];
        foreach (self::randomShots(200, $errors) as $shot) {
            $offs[] = abs(self::quick($shot, $errors) - Trials::of($shot, new ShotSolver(), $errors, 2000)->chance());
        }
        sort($offs);

        self::assertCount(200, $offs);
        self::assertLessThan(0.01, $offs[100]);
        self::assertLessThanOrEqual(0.03, $offs[189]);
    }

    public function testWithoutErrorsItIsCertainAndItFallsWithEachError(): void
    {
        foreach (self::randomShots(12, new ExecutionErrors()) as $shot) {
            if (!$shot->isMade()) {
                continue;
            }
            self::assertSame(1.0, round(self::quick($shot, new ExecutionErrors(0.0, 0.0, 0.0, 0.0)), 6));
            $last = 1.0;
            foreach ([0.03, 0.1, 0.4] as $aim) {
                $now = self::quick($shot, new ExecutionErrors($aim, 0.0, 0.0, 0.0));
                self::assertLessThanOrEqual($last + 1e-6, $now);
                $last = $now;
            }
        }
    }

    private static function quick(SolvedShot $shot, ExecutionErrors $errors): float
    {
        return QuickChance::of(
            $shot->choice,
            $shot->strike,
            (new EventSimulator())->rollouts($shot->layout),
            new BallSet(),
            $errors->in($shot->strike, ShotDemands::ofSolved($shot, new Equipment(), $errors->growth)),
        );
    }

    /** @return iterable<SolvedShot> pots of the 1 among up to four other balls, from anywhere, with the usual stroke */
    private static function randomShots(int $count, ExecutionErrors $errors): iterable
    {
        $chance = new Chance(9);
        $desk = new ShotSolver();
        while ($count > 0) {
            $layout = (new Table())->randomLayout($chance, $chance->int(2, 6));
            $line = PotModel::find($layout, Ball::One, Pocket::cases()[$chance->int(0, 5)], new ShotSolver(), $errors);
            $cue = $layout->spot(Ball::Cue);
            if (null === $line || $line->chance($cue) < 0.02) {
                continue;
            }
            try {
                yield $desk->solve($layout, $line->choice($cue));
            } catch (CoreError) {
                continue;
            }
            --$count;
        }
    }
}
