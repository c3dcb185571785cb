<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Decide;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Decide\Situation;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Foul;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Standing;
use ZigLane\Core\Rules\Verdict;
use ZigLane\Core\Table\Equipment;
use ZigLane\Tests\Table;

/** What follows from a shot between two players. */
final class SituationTest extends TestCase
{
    public function testAFoulGivesTheOtherTheBallInHandAndCounts(): void
    {
        $next = self::nine()->after(
            self::ending([2, 9]),
            new Verdict([Foul::NothingHit], false, null, [], null, 0, BallInHand::Anywhere),
            new Equipment(),
        );

        self::assertSame(1, $next->shooter);
        self::assertTrue($next->isInHand());
        self::assertFalse($next->layout->has(Ball::Cue));
        self::assertEquals(new Standing(1, 2), $next->standing);
    }

    public function testALegalShotEndsARowOfFouls(): void
    {
        $next = self::nine()->after(self::ending([9]), new Verdict([], true, null, [], null), new Equipment());

        self::assertSame(0, $next->shooter);
        self::assertEquals(new Standing(0, 1), $next->standing);
        self::assertSame([1, 1], $next->left());
    }

    public function testTheGroupIsTheOthersWhenTheTurnPasses(): void
    {
        $layout = Table::layout([0 => [1.0, 0.5], 3 => [1.5, 0.5], 8 => [2.0, 0.5], 9 => [2.2, 0.9]]);
        $eight = new Situation(Game::EightBall, $layout, 0, Group::Solids);
        $next = $eight->after(self::ending([3, 8, 9]), new Verdict([], false, null, [], Group::Solids), new Equipment());

        self::assertSame(Group::Stripes, $next->group);
        self::assertSame([Ball::Nine], $next->on());
        self::assertSame([2, 2], $eight->left());
    }

    public function testAPushOutMayBeGivenBackAndOnlyOnce(): void
    {
        $next = self::nine()->after(
            self::ending([2, 9]),
            new Verdict([], false, null, [], null, 0, BallInHand::None, true),
            new Equipment(),
        );

        self::assertTrue($next->standing->mayPass);
        self::assertSame(0, $next->passed()->shooter);
        self::assertFalse($next->passed()->standing->mayPass);
    }

    public function testAMoneyBallThatDropsOnAFoulComesBack(): void
    {
        $next = self::nine()->after(
            self::ending([2]),
            new Verdict([Foul::WrongBall], false, null, [Ball::Nine], null, 0, BallInHand::Anywhere),
            new Equipment(),
        );

        self::assertTrue($next->layout->has(Ball::Nine));
    }

    private static function nine(): Situation
    {
        return new Situation(
            Game::NineBall,
            Table::layout([0 => [1.0, 0.5], 2 => [1.5, 0.5], 9 => [2.0, 0.9]]),
            standing: new Standing(1, 1),
        );
    }

    /** @param list<int> $left object balls that stay on the table */
    private static function ending(array $left): Ending
    {
        $spots = [0 => [0.3, 0.3]];
        foreach ($left as $i => $number) {
            $spots[$number] = [1.0 + 0.2 * $i, 0.9];
        }

        return new Ending(Table::layout($spots), [], Ball::Two, [], []);
    }
}
