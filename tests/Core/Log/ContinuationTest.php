<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Log;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Log\Continuation;
use ZigLane\Core\Log\IllegalEntry;
use ZigLane\Core\Log\RackResult;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Log\ShotResult;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;
use ZigLane\Tests\Table;

/** What follows from a shot as it was noted at the table. */
final class ContinuationTest extends TestCase
{
    public function testAMadeBallGoesOnFromWhereTheBallsLie(): void
    {
        $rack = self::rack(Game::NineBall, [0 => [0.6, 0.5], 3 => [1.8, 0.4], 9 => [1.2, 1.0]]);
        $next = Continuation::of($rack, Ball::Three, ShotKind::Pot, self::noted(true, [0 => [1.5, 0.7], 9 => [1.2, 1.0]]));
        self::assertTrue($next->goesOn);
        self::assertFalse($next->isOver);
        self::assertNull($next->end);
        self::assertEqualsWithDelta(1.5, $next->rack->layout->spot(Ball::Cue)->x, 1e-6);
        self::assertSame([Ball::Nine], $next->rack->objectBalls());
    }

    /** @return iterable<string, array{Game, list<int>, int|null, bool, bool, RuleOptions, RackResult|null}> */
    public static function ends(): iterable
    {
        $usual = new RuleOptions();
        yield 'the 9 early, on a legal shot' => [Game::NineBall, [3, 9], 3, false, false, $usual, RackResult::Out];
        yield 'the 9 on a foul is spotted' => [Game::NineBall, [3, 9], 3, true, false, $usual, null];
        yield 'the 9 uncalled where it must be called' => [Game::NineBall, [3, 9], 3, true, false, new RuleOptions(callsNine: true), null];
        yield 'the 10 called early' => [Game::TenBall, [3, 10], 10, false, true, $usual, RackResult::Out];
        yield 'the 10 called early where it must be last' => [
            Game::TenBall, [3, 10], 10, false, true, new RuleOptions(tenLast: true), null,
        ];
        yield 'the 10 that was not called' => [Game::TenBall, [3, 10], 3, false, true, $usual, null];
        yield 'the 8 after the group' => [Game::EightBall, [8, 12], 8, false, true, $usual, RackResult::Out];
        yield 'the 8 before the group is through' => [Game::EightBall, [2, 8], 8, false, true, $usual, RackResult::Lost];
        yield 'the 8 and a scratch' => [Game::EightBall, [8, 12], 8, true, true, $usual, RackResult::Lost];
    }

    /** @param list<int> $balls the money ball drops of them */
    #[DataProvider('ends')]
    public function testTheMoneyBallDecides(
        Game $game, array $balls, ?int $called, bool $isScratch, bool $isMade, RuleOptions $rules, ?RackResult $end,
    ): void {
        $spots = [0 => [0.6, 0.5]];
        foreach ($balls as $i => $number) {
            $spots[$number] = [1.5 + 0.3 * $i, 0.4];
        }
        $rack = new Rack($game, Table::layout($spots), group: Game::EightBall === $game ? Group::Solids : null, rules: $rules);
        $money = $game->rules()->moneyBall->value ?? 0;
        unset($spots[$money]);
        if ($isScratch) {
            unset($spots[0]);
        }
        $next = Continuation::of(
            $rack,
            null === $called ? null : Ball::from($called),
            ShotKind::Pot,
            self::noted($isMade && $called === $money, $spots, $isScratch),
        );
        self::assertSame(null !== $end, $next->isOver);
        if (null !== $end) {
            self::assertSame($end, $next->end);

            return;
        }
        // It comes back to its spot.
        $back = Ball::from($money);
        self::assertTrue($next->rack->layout->has($back));
        self::assertEqualsWithDelta(Racking::footSpot((new Equipment())->table)->x, $next->rack->layout->spot($back)->x, 0.06);
    }

    public function testAScratchGivesTheBallInHandAsTheGameSays(): void
    {
        foreach ([[Game::NineBall, BallInHand::Anywhere], [Game::StraightPool, BallInHand::Kitchen]] as [$game, $inHand]) {
            $rack = self::rack($game, [0 => [0.6, 0.5], 3 => [1.8, 0.4], 9 => [1.2, 1.0]]);
            $next = Continuation::of($rack, Ball::Three, ShotKind::Pot, self::noted(false, [3 => [1.8, 0.5], 9 => [1.2, 1.0]], true));
            self::assertSame([false, RackResult::Scratch, $inHand], [$next->goesOn, $next->end, $next->rack->ballInHand]);
        }
        // A foul without a scratch: in hand in nine-ball, as it lies in straight pool.
        foreach ([[Game::NineBall, false], [Game::StraightPool, true]] as [$game, $stays]) {
            $rack = self::rack($game, [0 => [0.6, 0.5], 3 => [1.8, 0.4], 9 => [1.2, 1.0]]);
            $result = new ShotResult(false, null, false, null, true, false, null, $rack->layout);
            $next = Continuation::of($rack, Ball::Three, ShotKind::Pot, $result);
            self::assertSame($stays, $next->rack->layout->has(Ball::Cue));
            self::assertSame(RackResult::Foul, $next->end);
        }
    }

    public function testAnOpenTableBecomesThatOfTheBallThatWasMade(): void
    {
        $rack = new Rack(
            Game::EightBall,
            Table::layout([0 => [0.6, 0.5], 3 => [1.8, 0.4], 8 => [1.2, 1.0], 11 => [2.0, 1.0]]),
            group: Group::Open,
        );
        $next = Continuation::of(
            $rack,
            Ball::Eleven,
            ShotKind::Pot,
            self::noted(true, [0 => [0.6, 0.5], 3 => [1.8, 0.4], 8 => [1.2, 1.0]]),
        );
        self::assertSame(Group::Stripes, $next->rack->group);
        // A miss leaves it open.
        $miss = Continuation::of(
            $rack,
            Ball::Eleven,
            ShotKind::Pot,
            self::noted(false, [0 => [0.6, 0.5], 3 => [1.8, 0.4], 8 => [1.2, 1.0], 11 => [2.0, 1.1]]),
        );
        self::assertSame([Group::Open, RackResult::Miss], [$miss->rack->group, $miss->end]);
    }

    public function testTheFourteenthBallOfStraightPoolIsFollowedByTheNextRack(): void
    {
        $rack = self::rack(Game::StraightPool, [0 => [0.6, 0.5], 3 => [1.8, 0.4], 9 => [1.2, 1.0]]);
        $next = Continuation::of($rack, Ball::Three, ShotKind::Pot, self::noted(true, [0 => [1.0, 0.7], 9 => [1.2, 1.0]]));
        self::assertTrue($next->goesOn);
        self::assertCount(15, $next->rack->objectBalls());
        self::assertNotNull(Racking::racked($next->rack->layout, $next->rack->equipment));
    }

    public function testASafetyEndsTheTurn(): void
    {
        $rack = self::rack(Game::NineBall, [0 => [0.6, 0.5], 3 => [1.8, 0.4], 9 => [1.2, 1.0]]);
        $next = Continuation::of($rack, null, ShotKind::Safety, self::noted(null, [0 => [0.1, 0.5], 3 => [2.4, 0.4], 9 => [1.2, 1.0]]));
        self::assertSame([false, RackResult::Safety, false], [$next->goesOn, $next->end, $next->isOver]);
    }

    /** @return iterable<string, array{int|null, bool|null, array<int, array{float, float}>, string}> */
    public static function impossible(): iterable
    {
        yield 'a ball that was already down' => [3, false, [0 => [0.6, 0.5], 3 => [1.8, 0.4], 5 => [1.0, 1.0]], 'entry.alreadyDown'];
        yield 'a made ball that is still there' => [3, true, [0 => [0.6, 0.5], 3 => [1.8, 0.4]], 'entry.stillThere'];
        yield 'a called ball that is not there' => [4, false, [0 => [0.6, 0.5], 3 => [1.8, 0.4]], 'entry.notThere'];
        yield 'no cue ball' => [3, true, [9 => [1.2, 1.0]], 'entry.noCueBall'];
        yield 'in each other' => [3, false, [0 => [1.8, 0.41], 3 => [1.8, 0.4], 9 => [1.2, 1.0]], 'layout.overlap'];
        yield 'off the cloth' => [3, false, [0 => [3.8, 0.41], 3 => [1.8, 0.4], 9 => [1.2, 1.0]], 'layout.offTheCloth'];
    }

    /** @param array<int, array{float, float}> $spots */
    #[DataProvider('impossible')]
    public function testWhatCannotHaveComeOfItIsRefused(?int $called, ?bool $isMade, array $spots, string $kind): void
    {
        $rack = self::rack(Game::NineBall, [0 => [0.6, 0.5], 3 => [1.8, 0.4], 9 => [1.2, 1.0]]);
        try {
            Continuation::of($rack, null === $called ? null : Ball::from($called), ShotKind::Pot, self::noted($isMade, $spots));
            self::fail('It was taken.');
        } catch (IllegalEntry|IllegalLayout $e) {
            self::assertSame($kind, $e->fact()->kind);
        }
    }

    /** @param array<int, array{float, float}> $spots */
    private static function rack(Game $game, array $spots): Rack
    {
        return new Rack($game, Table::layout($spots));
    }

    /** @param array<int, array{float, float}> $spots */
    private static function noted(?bool $isMade, array $spots, bool $isScratch = false): ShotResult
    {
        $after = Layout::empty();
        foreach ($spots as $number => [$x, $y]) {
            $after = $after->with(Ball::from($number), Spot::metres($x, $y));
        }

        return new ShotResult($isMade, null, $isScratch, null, $isScratch, false, null, $after);
    }
}
