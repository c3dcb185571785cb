<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Decide;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Decide\Pace;
use ZigLane\Core\Decide\Race;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Shot\ShotSolver;

/** What a rack is worth between two players by their pace alone. */
final class RaceTest extends TestCase
{
    /** One ball, chances a and b to make it, and nothing else: a / (1 - (1 - a)(1 - b)), by the sum of the geometric series. */
    public function testWithOneBallTheRaceIsAGeometricSeries(): void
    {
        $race = new Race(Game::NineBall, [self::pace(0.5), self::pace(0.25)]);

        self::assertEqualsWithDelta(0.5 / (1 - 0.5 * 0.75), $race->fresh(0, 1, 1), 1e-9);
        self::assertEqualsWithDelta(0.25 / (1 - 0.5 * 0.75), $race->fresh(1, 1, 1), 1e-9);
    }

    /** In eight-ball with one ball each the same holds, and with more balls for the other the chance is greater. */
    public function testMoreBallsForTheOtherAreWorthMore(): void
    {
        $race = new Race(Game::EightBall, [self::pace(0.5), self::pace(0.5)]);

        self::assertEqualsWithDelta(2 / 3, $race->fresh(0, 1, 1), 1e-9);
        self::assertGreaterThan($race->fresh(0, 2, 2), $race->fresh(0, 2, 4));
        self::assertLessThan($race->fresh(0, 2, 2), $race->fresh(0, 4, 2));
    }

    /** Straight pool, one ball to win before the last: a (1) - (1 - a) x, the same to either. */
    public function testInStraightPoolBallsAreCounted(): void
    {
        $race = new Race(Game::StraightPool, [self::pace(0.5), self::pace(0.5)]);

        self::assertEqualsWithDelta(0.5 / (1 + 0.5), $race->fresh(0, 1, 1), 1e-9);
        self::assertSame(0.0, $race->fresh(0, 0, 0));
        self::assertSame(-1.5, $race->turned(1.5));
    }

    #[DataProvider('games')]
    public function testTheTableIsWorthMoreToABetterPlayerAndInHandMoreThanHidden(Game $game): void
    {
        $solver = new ShotSolver();
        [$club, $expert] = array_map(
            static fn (string $level): Pace => Pace::of(new ExecutionErrors(...ExecutionErrors::PRESETS[$level]), $game, $solver),
            ['club player', 'expert'],
        );
        $uneven = new Race($game, [$expert, $club]);
        $even = new Race($game, [$expert, $expert]);

        self::assertGreaterThan($uneven->fresh(1, 4, 4), $uneven->fresh(0, 4, 4));
        self::assertGreaterThan($even->from(0, 2, 2, 0.0, false), $even->hand(0, 2, 2));
        self::assertGreaterThan($even->from(0, 2, 2, 0.2, true), $even->from(0, 2, 2, 0.9, true));
        self::assertEqualsWithDelta(
            Game::StraightPool === $game ? 0.0 : 1.0,
            $even->from(0, 3, 3, 0.5, true) + $even->turned($even->from(0, 3, 3, 0.5, true)),
            1e-9,
        );
    }

    /** @return iterable<string, array{Game}> */
    public static function games(): iterable
    {
        foreach (Game::cases() as $game) {
            yield $game->value => [$game];
        }
    }

    /** A third foul in a row loses: a position from which fouls are likely is worth less with two on. */
    public function testTwoFoulsOnMakeAHiddenBallWorthLess(): void
    {
        $player = new ExecutionErrors(...ExecutionErrors::PRESETS['club player']);
        $pace = Pace::of($player, Game::NineBall, new ShotSolver());
        $race = new Race(Game::NineBall, [$pace, $pace]);

        self::assertLessThan($race->from(0, 4, 4, 0.0, false) - 0.02, $race->from(0, 4, 4, 0.0, false, true));
    }

    /** Somebody who goes on with every shot with the same chance, fouls never and plays no safety. */
    private static function pace(float $chance): Pace
    {
        $on = [log($chance / (1 - $chance)), 0.0, 0.0];
        $never = [-50.0, 0.0, 0.0];

        return new Pace(0.5, ['later' => $on, 'fresh' => $on, 'safe' => $on, 'hand' => $on, 'foul' => $never, 'tight' => $never]);
    }
}
