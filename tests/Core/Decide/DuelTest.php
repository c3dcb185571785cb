<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Decide;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Decide\Duel;
use ZigLane\Core\Decide\Duellist;
use ZigLane\Core\Decide\DuelScore;
use ZigLane\Core\Decide\PositionValue;
use ZigLane\Core\Decide\Situation;
use ZigLane\Core\Decide\WayKind;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Tests\Table;

/** Racks played out between two players. */
final class DuelTest extends TestCase
{
    private const SPOTS = [0 => [0.6, 0.4], 7 => [1.9, 0.75], 8 => [1.3, 0.3], 9 => [2.2, 0.4]];

    public function testTheSameSeedPlaysTheSameRack(): void
    {
        $shots = [];
        foreach ([0, 1] as $round) {
            self::duel('expert', 'expert')->play(0, 11, static function (Situation $now, array $chosen) use (&$shots, $round): void {
                $shots[$round][] = [$now->shooter, $chosen[0]->kind, $chosen[0]->strike?->direction, $now->layout->places()];
            });
        }

        self::assertCount(2, $shots);
        self::assertEquals($shots[0], $shots[1]);
    }

    public function testTheBetterPlayerWinsMoreOften(): void
    {
        $duel = self::duel('expert', 'beginner');
        $score = new DuelScore();
        for ($game = 0; $game < 10; ++$game) {
            $score->add($duel->play($game % 2, 50 + $game), false);
        }

        self::assertGreaterThan(0.6, $score->share());
        self::assertSame(10, $score->games);
    }

    public function testWhoPlaysNoSafetiesCallsEveryBallThatHeCanPot(): void
    {
        $kinds = [];
        self::duel('club player', 'club player', false)->play(0, 3, static function (Situation $now, array $chosen) use (&$kinds): void {
            $kinds[$now->shooter][] = [$chosen[0]->kind, $chosen[1]->made];
        });
        $safeties = array_filter($kinds[0] ?? [], static fn (array $one): bool => WayKind::Safety === $one[0] && $one[1] > 0);

        self::assertSame([], $safeties);
    }

    public function testADrawCountsHalfAndBallsAreAveraged(): void
    {
        $score = new DuelScore();
        foreach ([1.0, 0.5, 0.0, 1.0] as $result) {
            $score->add($result, false);
        }
        self::assertSame([2, 1, 0.625], [$score->won(), $score->drawn(), $score->share()]);
        $balls = new DuelScore();
        foreach ([3.0, -1.0, 0.0] as $result) {
            $balls->add($result, true);
        }
        self::assertEqualsWithDelta(2 / 3, $balls->mean(), 1e-12);
        self::assertSame(1, $balls->drawn());
        self::assertLessThan($balls->mean(), $balls->meanInterval()[0]);
    }

    private static function duel(string $one, string $other, bool $playsSafe = true): Duel
    {
        $players = [new ExecutionErrors(...ExecutionErrors::PRESETS[$one]), new ExecutionErrors(...ExecutionErrors::PRESETS[$other])];
        $rack = new Rack(Game::NineBall, Table::layout(self::SPOTS), player: $players[0]);
        $solver = new ShotSolver();
        $value = new PositionValue($rack, $players, $solver);

        return new Duel($rack, $value, $solver, [
            new Duellist($rack, $value, $solver, 0, $playsSafe),
            new Duellist($rack, $value, $solver, 1),
        ]);
    }
}
