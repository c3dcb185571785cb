<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Rules;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\BallsOn;
use ZigLane\Core\Rules\Foul;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\NearContact;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Rules\Verdict;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;
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
            new Turn($group),
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
        yield 'ten: the ten early, called, wins' => [$ten, [2, 7, 10], null, 2, [10], false, 10, true, true];
        yield 'ten: the ten early, uncalled, comes back' => [$ten, [2, 7, 10], null, 2, [10], false, 2, false, null, [], [10]];
        yield 'ten: the ten early comes back by choice, and the shooter goes on' => [
            $ten, [2, 7, 10], null, 2, [10], false, 10, true, null, [], [10], null,
            new RuleOptions(tenLast: true),
        ];
        yield 'ten: the ten as the last wins' => [$ten, [10], null, 10, [10], false, 10, true, true];
        yield 'ten: wrong ball first' => [$ten, [2, 7, 10], null, 7, [7], false, 7, false, null, [Foul::WrongBall]];

        $eight = Game::EightBall;
        yield 'eight: open table, the called ball decides the group' => [
            $eight, [1, 9, 8], Group::Open, 9, [9], false, 9, true, null, [], [], Group::Stripes,
        ];
        yield 'eight: open table, the 8 first' => [
            $eight, [1, 9, 8], Group::Open, 8, [1], false, 1, false, null, [Foul::WrongBall], [], Group::Open,
        ];
        yield 'eight: open table, a miss leaves it open' => [
            $eight, [1, 9, 8], Group::Open, 9, [], true, 9, false, null, [], [], Group::Open,
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

    /** What the other player gets: the ball in hand anywhere, behind the head string after a scratch of straight pool, or the table. */
    public function testWhatAFoulGives(): void
    {
        foreach ([
            [Game::NineBall, [], 9, BallInHand::Anywhere],
            [Game::TenBall, [0], 2, BallInHand::Anywhere],
            [Game::EightBall, [0], 9, BallInHand::Anywhere],
            [Game::StraightPool, [], 9, BallInHand::None],
            [Game::StraightPool, [0], 9, BallInHand::Kitchen],
        ] as [$game, $drops, $first, $inHand]) {
            $verdict = (new Referee($game))->judge(
                self::layout([2, 9, 10]),
                new Turn(Group::Stripes),
                self::ending([2, 9, 10], $first, $drops, false),
                null,
                null,
            );
            self::assertTrue($verdict->isFoul());
            self::assertSame($inHand, $verdict->inHand);
            self::assertSame(BallInHand::Anywhere === $inHand, $verdict->givesAll());
        }
    }

    public function testTheThirdFoulInARowCostsFifteenMore(): void
    {
        foreach ([0 => -1, 1 => -1, 2 => -16] as $before => $points) {
            $verdict = (new Referee(Game::StraightPool))->judge(
                self::layout([1, 9]),
                new Turn(foulsInARow: $before),
                self::ending([1, 9], 9, [], false),
                null,
                null,
            );
            self::assertSame($points, $verdict->points);
        }
    }

    public function testTheThirdFoulInARowLosesARotationRackUnlessTheHouseSaysNo(): void
    {
        foreach ([[1, false, null], [2, false, false], [2, true, null]] as [$before, $isOff, $isWon]) {
            foreach ([Game::NineBall, Game::TenBall] as $game) {
                $verdict = (new Referee($game, new RuleOptions(noThirdFoul: $isOff)))->judge(
                    self::layout([2, 9, 10]),
                    new Turn(foulsInARow: $before),
                    self::ending([2, 9, 10], 9, [], true),
                    null,
                    null,
                );
                self::assertSame($isWon, $verdict->isWon);
            }
        }
    }

    public function testAPushOutNeedsNoHitAndGivesTheOtherTheChoice(): void
    {
        $referee = new Referee(Game::NineBall);
        $push = $referee->judgePush(new Turn(), self::ending([2, 9], null, [], false));
        self::assertFalse($push->isFoul());
        self::assertTrue($push->othersChoice);
        $nine = $referee->judgePush(new Turn(), self::ending([2, 9], 9, [9], false));
        self::assertSame([Ball::Nine], $nine->spots);
        self::assertNull($nine->isWon);
        $scratch = $referee->judgePush(new Turn(foulsInARow: 2), self::ending([2, 9], 2, [0], false));
        self::assertSame([Foul::Scratch], $scratch->fouls);
        self::assertFalse($scratch->isWon);
    }

    public function testAnUncalledBallOfTenBallIsTheOthersChoice(): void
    {
        self::assertTrue(self::ten(2, [7], 2)->othersChoice);
        self::assertFalse(self::ten(2, [], 2)->othersChoice);
        self::assertFalse(self::ten(2, [2], 2)->othersChoice);
        self::assertFalse(self::ten(7, [7], 2)->othersChoice);
    }

    /** A ball frozen to a rail is driven to it only when it leaves and comes back, or to another; a jaw counts as a cushion. */
    public function testTheCushionOfAFrozenBall(): void
    {
        $layout = Table::layout([0 => [1.5, 0.5], 1 => [2.54 - Table::R - 0.0005, 0.6], 2 => [1.0, 0.8]]);
        self::assertSame([Foul::NoCushion], self::driven($layout, []));
        self::assertSame([Foul::NoCushion], self::driven($layout, [[Ball::One, Rail::Foot, 0.002]]));
        self::assertSame([], self::driven($layout, [[Ball::One, Rail::Foot, 0.002], [Ball::One, Rail::Foot, 1.2]]));
        self::assertSame([], self::driven($layout, [[Ball::One, Rail::Foot, 1.2]]));
        self::assertSame([], self::driven($layout, [[Ball::One, Rail::Foot, 0.002], [Ball::One, Rail::Left, 0.9]]));
        self::assertSame([], self::driven($layout, [[Ball::Two, Rail::Foot, 0.05]]));
        self::assertSame([], self::driven($layout, [[Ball::One, Pocket::FootLeft, 0.4]]));
    }

    /** As simulated: a soft push of a frozen ball into its rail is a foul, a soft ball into the jaws of a corner is none. */
    public function testFrozenBallsAndJawsAsSimulated(): void
    {
        self::assertSame([Foul::NoCushion], self::played([0 => [2.4, 0.6], 1 => [2.54 - Table::R, 0.6]], 0.0, 0.25));
        self::assertSame([], self::played([0 => [2.1, 0.6], 1 => [2.54 - Table::R, 0.6]], 0.0, 3.5));
        // Towards the near point of FL, so softly that it stays in the jaws.
        self::assertSame([], self::played([0 => [2.25, 1.02], 1 => [2.36, 1.135]], 45.7, 0.75));
    }

    /** From behind the head string the first ball lies beyond it, or the cue ball crosses it first. */
    public function testBehindTheHeadString(): void
    {
        $layout = Table::layout([0 => [0.3, 0.6], 1 => [0.5, 0.9], 2 => [1.9, 0.6]]);
        self::assertFalse(self::isBehindString($layout, Ball::Two, [], true));
        self::assertTrue(self::isBehindString($layout, Ball::One, [], true));
        self::assertFalse(self::isBehindString($layout, Ball::One, [], false));
        self::assertTrue(self::isBehindString($layout, Ball::One, [Rail::Left], true));
        self::assertFalse(self::isBehindString($layout, Ball::One, [Rail::Foot], true));
    }

    /** Close before the cue ball a level full hit is a double hit; a thin hit, a raised cue, a frozen ball, a wider gap are clean. */
    public function testADoubleHit(): void
    {
        $isFoul = static function (float $gap, float $degrees, float $elevation = 2.0): bool {
            $layout = Table::layout([0 => [1.0, 0.6], 1 => [1.0 + 2 * Table::R + $gap, 0.6]]);

            return null !== NearContact::of($layout, Strike::degrees($degrees, 2.0, 0.0, 0.0, $elevation), new Equipment());
        };
        self::assertTrue($isFoul(0.0064, 0.0));
        self::assertTrue($isFoul(0.024, 20.0));
        self::assertFalse($isFoul(0.026, 0.0));
        self::assertFalse($isFoul(0.0, 0.0));
        self::assertFalse($isFoul(0.0064, 42.0));
        self::assertFalse($isFoul(0.0064, 180.0));
        self::assertFalse($isFoul(0.0064, 0.0, 45.0));
    }

    public function testTheBallsThatMayBeMetFirst(): void
    {
        self::assertSame([3], self::on(Game::NineBall, [5, 3, 9]));
        self::assertSame([1, 9], self::on(Game::EightBall, [1, 8, 9], Group::Open));
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
            new Turn(),
            $rollouts->play(Strike::degrees(0.0, $speed)),
            null,
            null,
        );

        self::assertSame([Foul::NoCushion], $judge(0.4)->fouls);
        self::assertSame([], $judge(1.5)->fouls);
    }

    /** @param list<int> $drops */
    private static function ten(int $first, array $drops, int $call): Verdict
    {
        return (new Referee(Game::TenBall))->judge(
            self::layout([2, 7, 10]),
            new Turn(),
            self::ending([2, 7, 10], $first, $drops, true),
            Ball::from($call),
            Pocket::FootLeft,
        );
    }

    /**
     * @param list<array{Ball, Rail|Pocket, float}> $driven
     *
     * @return list<Foul>
     */
    private static function driven(Layout $layout, array $driven): array
    {
        $ending = new Ending($layout, [], Ball::One, [Ball::One], [], [], $driven);

        return (new Referee(Game::NineBall))->judge($layout, new Turn(), $ending, null, null)->fouls;
    }

    /**
     * @param array<int, array{float, float}> $spots
     *
     * @return list<Foul>
     */
    private static function played(array $spots, float $towards, float $speed): array
    {
        $layout = Table::layout($spots);
        $ending = (new EventSimulator())->rollouts($layout)->play(Strike::degrees($towards, $speed, 0.0, 0.0));

        return (new Referee(Game::NineBall))->judge($layout, new Turn(), $ending, null, null)->fouls;
    }

    /** @param list<Rail> $before */
    private static function isBehindString(Layout $layout, Ball $first, array $before, bool $kitchen): bool
    {
        $ending = new Ending($layout, [], $first, [$first], $before, $before, [[Ball::One, Rail::Left, 0.5]]);
        $verdict = (new Referee(Game::StraightPool))->judge($layout, new Turn(fromKitchen: $kitchen), $ending, null, null);

        return \in_array(Foul::BehindString, $verdict->fouls, true);
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

        return new Ending(
            $final,
            $pocketed,
            null === $first ? null : Ball::from($first),
            [],
            [],
            [],
            $cushion ? [[Ball::Cue, Rail::Left, 0.5]] : [],
        );
    }
}
