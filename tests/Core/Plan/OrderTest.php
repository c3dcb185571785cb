<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Plan;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\Order;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;

/** What may be shot next, as the planner has it: sets of balls as bits. */
final class OrderTest extends TestCase
{
    public function testRotationTakesTheLowest(): void
    {
        $order = Order::of(Game::NineBall);
        self::assertSame([3], self::numbers($order->next(self::set(3, 7, 9))));
        self::assertSame([7, 9], self::numbers($order->after(Ball::Three) & self::set(1, 2, 3, 7, 9)));
        self::assertFalse($order->isOut(self::set(9)));
        self::assertTrue($order->isOut(0));
    }

    public function testEightBallTakesItsGroupThenTheEight(): void
    {
        $order = Order::of(Game::EightBall, Group::Stripes);
        self::assertSame([9, 12], self::numbers($order->next(self::set(1, 8, 9, 12))));
        self::assertSame([8], self::numbers($order->next(self::set(1, 8))));
        self::assertTrue($order->isOut(self::set(1, 2)));
        self::assertSame([8, 9], self::numbers($order->toCome(self::set(1, 8, 9))));
    }

    public function testAWishPutsOneBallBeforeAnother(): void
    {
        $order = Order::of(Game::EightBall, Group::Solids, [[Ball::Seven, Ball::Four]]);
        self::assertSame([1, 7], self::numbers($order->next(self::set(1, 4, 7, 8))));
        self::assertSame([1, 4], self::numbers($order->next(self::set(1, 4, 8))));
    }

    public function testASequenceLooksAFewBallsAheadAndLeavesTheBreakBall(): void
    {
        $order = Order::aboutInTurn([Ball::Five, Ball::Three, Ball::One, Ball::Nine, Ball::Two, Ball::Four], Ball::Ten);
        self::assertSame([1, 3, 5, 9], self::numbers($order->next(self::set(1, 2, 3, 4, 5, 9, 10))));
        self::assertSame([10], self::numbers($order->next(self::set(10))));
        self::assertTrue($order->isOut(0));
        self::assertSame([2], self::numbers(Order::inTurn([Ball::Two, Ball::Seven])->next(self::set(2, 5, 7))));
    }

    private static function set(int ...$numbers): int
    {
        return array_sum(array_map(static fn (int $number): int => 1 << $number, $numbers));
    }

    /** @return list<int> */
    private static function numbers(int $set): array
    {
        return array_map(static fn (Ball $ball): int => $ball->value, Order::balls($set));
    }
}
