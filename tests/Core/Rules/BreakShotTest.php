<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Rules;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\BreakShot;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Table\Equipment;
use ZigLane\Tests\Table;

/** Racks lie as the rules want them; a break ends, keeps its balls, and spreads them. */
final class BreakShotTest extends TestCase
{
    #[DataProvider('games')]
    public function testARackIsLegalAndItsGapsAreAsStated(Game $game): void
    {
        for ($seed = 1; $seed <= 20; ++$seed) {
            $rack = Racking::of($game, new Equipment(), new Randomness($seed));
            self::assertSame([], (new LayoutRules(new Equipment()))->faults($rack));
            self::assertSame($game->rules()->highest, $rack->count());
            $balls = $rack->balls();
            $gaps = [];
            foreach ($balls as $i => $one) {
                foreach (\array_slice($balls, $i + 1) as $other) {
                    $gap = $rack->spot($one)->distanceTo($rack->spot($other)) - 2 * Table::R;
                    if ($gap < 0.01) {
                        $gaps[] = $gap;
                    }
                }
            }
            // Three for each ball inside, fewer at the edges: 16, 18 and 30 neighbours.
            self::assertCount([9 => 16, 10 => 18, 15 => 30][$game->rules()->highest], $gaps);
            self::assertGreaterThanOrEqual(-1e-12, min($gaps));
            self::assertLessThanOrEqual(Racking::LOOSENESS + 1e-7, max($gaps));
            self::assertEqualsWithDelta(0.5 * Racking::LOOSENESS, array_sum($gaps) / \count($gaps), 0.25 * Racking::LOOSENESS);
        }
    }

    /** @return iterable<array{Game}> */
    public static function games(): iterable
    {
        foreach (Game::cases() as $game) {
            yield $game->value => [$game];
        }
    }

    /** World standard rules: the 1 in front, the 9 or 10 or 8 in the middle, one of each group in the rear corners. */
    public function testWhichBallsHaveTheirPlace(): void
    {
        for ($seed = 1; $seed <= 30; ++$seed) {
            $order = static fn (Game $game): array => Racking::of($game, new Equipment(), new Randomness($seed))->balls();
            self::assertSame([Ball::One, Ball::Nine], [$order(Game::NineBall)[0], $order(Game::NineBall)[4]]);
            self::assertSame([Ball::One, Ball::Ten], [$order(Game::TenBall)[0], $order(Game::TenBall)[4]]);
            $eight = $order(Game::EightBall);
            self::assertSame(Ball::Eight, $eight[4]);
            self::assertNotSame($eight[10]->isStriped(), $eight[14]->isStriped());
        }
    }

    #[DataProvider('games')]
    public function testABreakEndsAndKeepsItsBalls(Game $game): void
    {
        for ($seed = 1; $seed <= 10; ++$seed) {
            $break = $this->broken($game, $seed);
            self::assertSame($game->rules()->highest + 1, $break->outcome->final->count() + \count($break->outcome->pocketed));
            self::assertSame([], (new LayoutRules(new Equipment()))->faults($break->outcome->final));
            self::assertLessThan(40.0, $break->outcome->duration());
        }
    }

    /** Common practice: a well-struck break opens the rack over the table, and balls go both ways of the middle. */
    public function testAHardBreakSpreadsTheBalls(): void
    {
        foreach ([Game::NineBall, Game::TenBall, Game::EightBall] as $game) {
            $spread = $made = 0.0;
            for ($seed = 1; $seed <= 40; ++$seed) {
                $break = $this->broken($game, $seed);
                $spread += $break->spread() / 40;
                $made += $break->made() / 40;
            }
            self::assertGreaterThan(0.8, $spread);
            // Any two spots of a nine-foot table lie 1.03 m apart on average (computed); balls lie so after a good break.
            self::assertLessThan(1.3, $spread);
            self::assertGreaterThan(0.3, $made);
            self::assertLessThan(2.5, $made);
        }
    }

    /** Common practice: from beside the rail the ball on the wing goes to its corner most times, from the middle hardly ever. */
    public function testTheBallOnTheWingGoesToItsCorner(): void
    {
        $went = 0;
        for ($seed = 1; $seed <= 60; ++$seed) {
            $went += $this->broken(Game::NineBall, $seed)->wingWent() ? 1 : 0;
        }

        // A ball that went anywhere by chance would find that one of six pockets less than one time in ten.
        self::assertGreaterThan(0.35 * 60, $went);
    }

    /** Common practice: the opening break of straight pool drives two balls to a cushion and leaves the cue ball at the head. */
    public function testStraightPoolOpensSafe(): void
    {
        $break = BreakShot::play(Game::StraightPool, new Equipment(), new ExecutionErrors(0.0, 0.0, 0.0, 0.0), new Randomness(3));
        $toCushion = [];
        foreach ($break->outcome->events as $event) {
            if (EventKind::Cushion === $event->kind && Ball::Cue !== $event->ball) {
                $toCushion[$event->ball->value] = true;
            }
        }

        self::assertGreaterThanOrEqual(2, \count($toCushion));
        self::assertLessThan(0.4, $break->outcome->final->spot(Ball::Cue)->x);
        self::assertLessThan(0.35, $break->spread());
    }

    public function testAScratchGivesBallInHand(): void
    {
        for ($seed = 1; $seed <= 200; ++$seed) {
            $break = $this->broken(Game::NineBall, $seed);
            $after = $break->rackAfter(Game::NineBall, new Equipment(), new ExecutionErrors());
            self::assertSame($break->outcome->isScratch() ? BallInHand::Anywhere : BallInHand::None, $after->ballInHand);
            if ($break->outcome->isScratch()) {
                return;
            }
        }
        self::fail('No scratch in 200 breaks.');
    }

    public function testTheSameSeedBreaksTheSame(): void
    {
        self::assertEquals($this->broken(Game::TenBall, 7)->outcome->final, $this->broken(Game::TenBall, 7)->outcome->final);
        self::assertNotEquals($this->broken(Game::TenBall, 7)->outcome->final, $this->broken(Game::TenBall, 8)->outcome->final);
    }

    private function broken(Game $game, int $seed): BreakShot
    {
        return BreakShot::play($game, new Equipment(), new ExecutionErrors(), new Randomness($seed));
    }
}
