<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Rules;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Rules\BallsOn;
use ZigLane\Core\Rules\Foul;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Table\Pocket;
use ZigLane\Tests\Table;

/** The world standard rules (WPA; from memory), a row each. Pockets do not matter here: every ball drops in FL unless said. */
final class RefereeTest extends TestCase
{
    /**
     * @param list<int>  $before object balls on the table
     * @param list<int>  $drops  balls that drop, 0 the cue ball
     * @param list<Foul> $fouls
     * @param list<int>  $spots
     */
    #[DataProvider('shots')]
    public function testAShotIsJudged(
        Game $game,
        array $before,
        ?Group $group,
        ?int $first,
        array $drops,
        bool $cushion,
        ?int $call,
        bool $goesOn,
        ?bool $won,
        array $fouls = [],
        array $spots = [],
        ?Group $then = null,
        RuleOptions $options = new RuleOptions(),
        int $points = 0,
    ): void {
        $verdict = (new Referee($game, $options))->judge(
            self::layout($before),
            $group,
            self::ending($before, $first, $drops, $cushion),
            null === $call ? null : Ball::from($call),
            null === $call ? null : Pocket::FootLeft,
        );

        self::assertSame($fouls, $verdict->fouls);
        self::assertSame([$goesOn, $won], [$verdict->goesOn, $verdict->isWon]);
        self::assertSame($spots, array_map(static fn (Ball $ball): int => $ball->value, $verdict->spots));
        self::assertSame($points, $verdict->points);
        if (null !== $then) {
            self::assertSame($then, $verdict->group);
        }
        self::assertSame([] !== $fouls, $verdict->isFoul());
    }

    /**
     * @return iterable<string, array{
     *     0: Game, 1: list<int>, 2: Group|null, 3: int|null, 4: list<int>, 5: bool, 6: int|null, 7: bool, 8: bool|null,
     *     9?: list<Foul>, 10?: list<int>, 11?: Group|null, 12?: RuleOptions, 13?: int
     * }>
     */
    public static function shots(): iterable
    {
        $nine = Game::NineBall;
        yield 'nine: the lowest first and made' => [$nine, [1, 5, 9], null, 1, [1], false, null, true, null];
        yield 'nine: combination, any ball counts' => [$nine, [1, 5, 9], null, 1, [5], false, null, true, null];
        yield 'nine: the nine early wins' => [$nine, [1, 5, 9], null, 1, [9], false, null, true, true];
        yield 'nine: the nine as the last wins' => [$nine, [9], null, 9, [9], false, null, true, true];
        yield 'nine: wrong ball first, the nine comes back' => [
            $nine, [1, 5, 9], null, 5, [9], false, null, false, null, [Foul::WrongBall], [9],
        ];
        yield 'nine: scratch with the nine' => [$nine, [1, 9], null, 1, [9, 0], false, null, false, null, [Foul::Scratch], [9]];
        yield 'nine: nothing hit' => [$nine, [1, 9], null, null, [], true, null, false, null, [Foul::NothingHit]];
        yield 'nine: no cushion after contact' => [$nine, [1, 9], null, 1, [], false, null, false, null, [Foul::NoCushion]];
        yield 'nine: cushion after contact, turn ends' => [$nine, [1, 9], null, 1, [], true, null, false, null];
        yield 'nine, called: the called one goes on' => [
            $nine, [1, 5, 9], null, 1, [5], false, 5, true, null, [], [], null,
            new RuleOptions(callsNine: true),
        ];
        yield 'nine, called: another does not' => [
            $nine, [1, 5, 9], null, 1, [5], false, 1, false, null, [], [], null,
            new RuleOptions(callsNine: true),
        ];
        yield 'nine, called: the nine uncalled comes back' => [
            $nine, [1, 5, 9], null, 1, [9], false, 1, false, null, [], [9], null,
            new RuleOptions(callsNine: true),
        ];

        $ten = Game::TenBall;
        yield 'ten: the called ball goes on' => [$ten, [2, 7, 10], null, 2, [2], false, 2, true, null];
        yield 'ten: an uncalled ball does not' => [$ten, [2, 7, 10], null, 2, [7], false, 2, false, null];
        yield 'ten: called combination' => [$ten, [2, 7, 10], null, 2, [7], false, 7, true, null];
        yield 'ten: the ten early, called, comes back' => [$ten, [2, 7, 10], null, 2, [10], false, 10, true, null, [], [10]];
        yield 'ten: the ten early may win by choice' => [
            $ten, [2, 7, 10], null, 2, [10], false, 10, true, true, [], [], null,
            new RuleOptions(tenAnyTime: true),
        ];
        yield 'ten: the ten as the last wins' => [$ten, [10], null, 10, [10], false, 10, true, true];
        yield 'ten: wrong ball first' => [$ten, [2, 7, 10], null, 7, [7], false, 7, false, null, [Foul::WrongBall]];

        $eight = Game::EightBall;
        yield 'eight: open table, the called ball decides the group' => [
            $eight, [1, 9, 8], Group::Open, 9, [9], false, 9, true, null, [], [], Group::Stripes,
        ];
        yield 'eight: open table, over the other group' => [
            $eight, [1, 9, 8], Group::Open, 9, [1], false, 1, true, null, [], [], Group::Solids,
        ];
        yield 'eight: open table, nothing called stays open' => [
            $eight, [1, 9, 8], Group::Open, 9, [9], false, 1, false, null, [], [], Group::Open,
        ];
        yield 'eight: own ball first and called' => [
            $eight, [1, 2, 9, 8], Group::Solids, 1, [1], false, 1, true, null, [], [], Group::Solids,
        ];
        yield 'eight: the other group first' => [$eight, [1, 9, 8], Group::Solids, 9, [1], false, 1, false, null, [Foul::WrongBall]];
        yield 'eight: the 8 first too early' => [$eight, [1, 9, 8], Group::Solids, 8, [], true, 1, false, null, [Foul::WrongBall]];
        yield 'eight: the 8 too early loses' => [$eight, [1, 9, 8], Group::Solids, 1, [1, 8], false, 1, false, false];
        yield 'eight: the 8 called as the last wins' => [$eight, [9, 8], Group::Solids, 8, [8], false, 8, true, true];
        yield 'eight: the 8 uncalled loses' => [$eight, [9, 8], Group::Solids, 8, [8], false, null, false, false];
        yield 'eight: the 8 with a scratch loses' => [$eight, [9, 8], Group::Solids, 8, [8, 0], false, 8, false, false, [Foul::Scratch]];
        yield 'eight: the 8 in the same shot as the last own ball loses' => [
            $eight, [1, 9, 8], Group::Solids, 1, [1, 8], false, 8, false, false,
        ];
        yield 'eight: on the 8 the other group first' => [$eight, [9, 8], Group::Solids, 9, [], true, 8, false, null, [Foul::WrongBall]];
        yield 'eight: missed with a cushion' => [$eight, [1, 9, 8], Group::Solids, 1, [], true, 1, false, null];

        $pool = Game::StraightPool;
        yield 'straight: the called ball scores' => [
            $pool, [1, 9, 8], null, 9, [9], false, 9, true, null, [], [], null, new RuleOptions(), 1,
        ];
        yield 'straight: others on the same shot score too' => [
            $pool, [1, 9, 8], null, 9, [9, 1], false, 9, true, null, [], [], null, new RuleOptions(), 2,
        ];
        yield 'straight: an uncalled ball comes back' => [$pool, [1, 9, 8], null, 9, [1], false, 9, false, null, [], [1]];
        yield 'straight: a scratch costs one and the ball comes back' => [
            $pool, [1, 9, 8], null, 9, [9, 0], false, 9, false, null, [Foul::Scratch], [9], null,
            new RuleOptions(), -1,
        ];
        yield 'straight: a safety to a cushion' => [$pool, [1, 9, 8], null, 9, [], true, null, false, null];
    }

    public function testTheEightOnTheBreakWinsOnlyByChoice(): void
    {
        $ending = self::ending([8, 1], 1, [8], true);
        self::assertNull((new Referee(Game::EightBall))->judgeEightOnBreak($ending)->isWon);
        self::assertSame([Ball::Eight], (new Referee(Game::EightBall))->judgeEightOnBreak($ending)->spots);
        self::assertTrue((new Referee(Game::EightBall, new RuleOptions(eightOnBreak: true)))->judgeEightOnBreak($ending)->isWon);
    }

    public function testTheBallsThatMayBeMetFirst(): void
    {
        self::assertSame([3], self::on(Game::NineBall, [5, 3, 9]));
        self::assertSame([1, 8, 9], self::on(Game::EightBall, [1, 8, 9], Group::Open));
        self::assertSame([9, 12], self::on(Game::EightBall, [1, 8, 9, 12], Group::Stripes));
        self::assertSame([8], self::on(Game::EightBall, [1, 8], Group::Stripes));
        self::assertSame([1, 2, 15], self::on(Game::StraightPool, [1, 2, 15]));
    }

    /** The cushion after the contact is told by the simulation: a soft push is a foul, a ball that comes to a rail is not. */
    public function testTheCushionAfterContactComesFromTheSimulation(): void
    {
        $layout = Table::layout([0 => [1.0, 0.6], 1 => [1.3, 0.6]]);
        $rollouts = (new EventSimulator())->rollouts($layout);
        $judge = static fn (float $speed) => (new Referee(Game::NineBall))->judge(
            $layout,
            null,
            $rollouts->play(Strike::degrees(0.0, $speed)),
            null,
            null,
        );

        self::assertSame([Foul::NoCushion], $judge(0.4)->fouls);
        self::assertSame([], $judge(1.5)->fouls);
    }

    /**
     * @param list<int> $balls
     *
     * @return list<int>
     */
    private static function on(Game $game, array $balls, ?Group $group = null): array
    {
        return array_map(static fn (Ball $ball): int => $ball->value, BallsOn::of($game, self::layout($balls), $group));
    }

    /** @param list<int> $balls */
    private static function layout(array $balls): Layout
    {
        $layout = Layout::empty()->with(Ball::Cue, Spot::metres(0.1, 0.1));
        foreach ($balls as $i => $number) {
            $layout = $layout->with(Ball::from($number), Spot::metres(0.3 + 0.1 * $i, 0.5));
        }

        return $layout;
    }

    /**
     * @param list<int> $before
     * @param list<int> $drops
     */
    private static function ending(array $before, ?int $first, array $drops, bool $cushion): Ending
    {
        $final = self::layout($before);
        $pocketed = [];
        foreach ($drops as $number) {
            $final = $final->without(Ball::from($number));
            $pocketed[$number] = Pocket::FootLeft;
        }

        return new Ending($final, $pocketed, null === $first ? null : Ball::from($first), [], [], $cushion);
    }
}
