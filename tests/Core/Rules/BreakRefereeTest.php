<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Rules;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\BreakChoice;
use ZigLane\Core\Rules\BreakReferee;
use ZigLane\Core\Rules\BreakShot;
use ZigLane\Core\Rules\Foul;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Table\Equipment;

/** Breaks by the world standard rules (WPA; from memory), a row each. */
final class BreakRefereeTest extends TestCase
{
    /**
     * @param list<int>         $drops   0 the cue ball
     * @param int               $driven  object balls to a cushion
     * @param list<Foul>        $fouls
     * @param list<int>         $spots
     * @param list<BreakChoice> $choices
     */
    #[DataProvider('breaks')]
    public function testABreakIsJudged(
        Game $game,
        array $drops,
        int $driven,
        bool $legal,
        bool $goesOn,
        bool $won,
        array $fouls,
        array $spots,
        BallInHand $inHand,
        array $choices,
        RuleOptions $options = new RuleOptions(),
        int $points = 0,
    ): void {
        $verdict = (new BreakReferee($game, $options))->judge(self::ending($drops, $driven));

        self::assertSame([$legal, $goesOn, $won], [$verdict->isLegal, $verdict->goesOn, $verdict->isWon]);
        self::assertSame($fouls, $verdict->fouls);
        self::assertSame($spots, array_map(static fn (Ball $ball): int => $ball->value, $verdict->spots));
        self::assertSame([$inHand, $choices, $points], [$verdict->inHand, $verdict->choices, $verdict->points]);
        $isRotation = Game::NineBall === $game || Game::TenBall === $game;
        self::assertSame($isRotation && [] === $fouls && !$won, $verdict->mayPush);
    }

    /**
     * @return iterable<string, array{
     *     0: Game, 1: list<int>, 2: int, 3: bool, 4: bool, 5: bool, 6: list<Foul>, 7: list<int>, 8: BallInHand, 9: list<BreakChoice>,
     *     10?: RuleOptions, 11?: int
     * }>
     */
    public static function breaks(): iterable
    {
        [$none, $any, $kitchen] = [BallInHand::None, BallInHand::Anywhere, BallInHand::Kitchen];
        $soft = [BreakChoice::Accept, BreakChoice::BreakSelf, BreakChoice::BreakAgain];
        yield 'nine: a ball dropped' => [Game::NineBall, [3], 1, true, true, false, [], [], $none, []];
        yield 'nine: dry, four to a cushion' => [Game::NineBall, [], 4, true, false, false, [], [], $none, []];
        yield 'nine: soft' => [Game::NineBall, [], 3, false, false, false, [Foul::NoCushion], [], $any, []];
        yield 'nine: the nine wins' => [Game::NineBall, [9], 5, true, true, true, [], [], $none, []];
        yield 'nine: the nine with a scratch comes back' => [
            Game::NineBall, [9, 0], 5, true, false, false, [Foul::Scratch], [9], $any, [],
        ];
        yield 'ten: the ten comes back' => [Game::TenBall, [10], 5, true, true, false, [], [10], $none, []];
        yield 'eight: a ball dropped, the table stays open' => [Game::EightBall, [3], 4, true, true, false, [], [], $none, []];
        yield 'eight: soft' => [Game::EightBall, [], 3, false, false, false, [], [], $none, $soft];
        yield 'eight: the 8 is spotted or broken again' => [
            Game::EightBall, [8], 5, true, true, false, [], [8], $none, [BreakChoice::SpotEight, BreakChoice::BreakAgain],
        ];
        yield 'eight: the 8 is broken again by choice' => [
            Game::EightBall, [8], 5, true, true, false, [], [8], $none, [BreakChoice::BreakAgain], new RuleOptions(eightReracks: true),
        ];
        yield 'eight: the 8 wins by choice' => [
            Game::EightBall, [8], 5, true, true, true, [], [], $none, [], new RuleOptions(eightOnBreak: true),
        ];
        yield 'eight: the 8 and a scratch' => [
            Game::EightBall, [8, 0], 5, true, false, false, [Foul::Scratch], [8], $kitchen,
            [BreakChoice::SpotEight, BreakChoice::BreakSelf], new RuleOptions(eightOnBreak: true),
        ];
        yield 'eight: a scratch' => [Game::EightBall, [0], 5, true, false, false, [Foul::Scratch], [], $kitchen, []];
        yield 'straight: two and the cue ball to a cushion' => [Game::StraightPool, [], 2, true, false, false, [], [], $none, []];
        yield 'straight: a breaking foul costs two' => [
            Game::StraightPool, [], 1, false, false, false, [Foul::NoCushion], [], $none,
            [BreakChoice::Accept, BreakChoice::BreakAgain], new RuleOptions(), -2,
        ];
        yield 'straight: a scratch on a legal break costs one' => [
            Game::StraightPool, [0], 2, true, false, false, [Foul::Scratch], [], $kitchen, [], new RuleOptions(), -1,
        ];
    }

    /** Whatever drops, the layout after a break holds its money ball, and the cue ball is in hand when it should be. */
    public function testNoLayoutAfterABreakLacksItsMoneyBall(): void
    {
        $spotted = 0;
        foreach ([[Game::NineBall, Ball::Nine], [Game::TenBall, Ball::Ten], [Game::EightBall, Ball::Eight]] as [$game, $money]) {
            for ($seed = 1; $seed <= 60; ++$seed) {
                $break = BreakShot::play($game, new Equipment(), new ExecutionErrors(), new Randomness($seed));
                $rack = $break->rackAfter($game, new Equipment(), new ExecutionErrors());
                self::assertTrue($rack->layout->has($money));
                self::assertSame(BallInHand::None === $rack->ballInHand, $rack->layout->has(Ball::Cue));
                $spotted += null !== $break->outcome->pocketOf($money) ? 1 : 0;
            }
        }
        self::assertGreaterThan(0, $spotted);
    }

    /** @param list<int> $drops */
    private static function ending(array $drops, int $driven): Ending
    {
        $pocketed = [];
        foreach ($drops as $number) {
            $pocketed[$number] = Pocket::FootLeft;
        }
        $met = [[Ball::Cue, Rail::Left, 1.0]];
        for ($i = 1; $i <= $driven; ++$i) {
            $met[] = [Ball::from($i), Rail::Foot, 0.4];
            $met[] = [Ball::from($i), Rail::Left, 0.8];
        }

        return new Ending(Layout::empty(), $pocketed, Ball::One, [], [], [], $met);
    }
}
