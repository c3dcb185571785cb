<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Rules;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\BrokenRack;
use ZigLane\Core\Rules\Foul;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Played;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Rules\Verdict;
use ZigLane\Tests\Table;

/** What every game answers; and a game of its own, the lowest ball of three, of one small class. */
final class RulesetTest extends TestCase
{
    public function testEveryGameIsWhole(): void
    {
        foreach (Game::cases() as $game) {
            $rules = $game->rules();
            self::assertSame($rules, $game->rules());
            // As many places in the rack as balls, and those with a place of their own are balls of the game.
            self::assertSame(\count($rules->balls()), array_sum($rules->rows), $game->value);
            foreach ($rules->places(new Randomness(1)) as $place => $ball) {
                self::assertLessThan(array_sum($rules->rows), $place);
                self::assertTrue($game->uses($ball));
            }
            self::assertSame([], array_diff($rules->options, RuleOptions::NAMES));
            // A game is won by its money ball or by counting, and is of one kind at the most.
            self::assertNotSame(null === $rules->moneyBall, !$rules->countsBalls);
            self::assertLessThanOrEqual(1, (int) $rules->isRotation + (int) $rules->hasGroups + (int) $rules->countsBalls);
        }
    }

    public function testASmallGameIsOneClass(): void
    {
        $rules = new ThreeBall();
        $balls = $rules->balls();
        self::assertSame([Ball::One, Ball::Two, Ball::Three], $balls);
        self::assertSame([Ball::Two], $rules->on([Ball::Two, Ball::Three], null));
        // The last ball straight into the corner, with and without a foul in the shot.
        $before = Table::layout([0 => [1.9, 0.635], 3 => [2.2, 0.9525]]);
        $strike = Strike::degrees(rad2deg(atan2(0.9525 - 0.635, 0.3)), 2.0, 0.0, 0.0, 0.0);
        $ending = Ending::of((new EventSimulator())->play($before, $strike));
        self::assertSame([Ball::Three], Referee::made($ending));
        $judged = static fn (Foul ...$fouls): Verdict => $rules->judge(
            new Played($before, new Turn(), $ending, array_values($fouls), Referee::made($ending), null, new RuleOptions()),
        );
        self::assertSame([true, []], [$judged()->isWon, $judged()->spots]);
        self::assertSame([null, [Ball::Three]], [$judged(Foul::DoubleHit)->isWon, $judged(Foul::DoubleHit)->spots]);
        self::assertNull($rules->decided(true, false, true, [], null, new RuleOptions()));
        self::assertTrue($rules->decided(false, false, false, [Ball::One], null, new RuleOptions()));
        // On the break it comes back, and the breaker goes on.
        $break = $rules->judgeBreak(BrokenRack::of($ending, new RuleOptions()));
        self::assertSame([false, true, [Ball::Three]], [$break->isWon, $break->goesOn, $break->spots]);
        self::assertSame(BallInHand::None, $break->inHand);
    }
}
