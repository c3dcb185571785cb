<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Shot;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\Rehearsal;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\LegChain;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Tests\Table;

/** A run leg by leg, and its odds. */
final class LegChainTest extends TestCase
{
    public function testEachLegStartsFromTheOneBefore(): void
    {
        $rack = self::rack();
        $legs = LegChain::play($rack, self::choices());

        self::assertSame([2, null], [$legs->done(), $legs->end]);
        self::assertFalse($legs->before(2)->layout->has(Ball::Four));
        self::assertEqualsWithDelta(
            0.0,
            $legs->solved[0]->outcome->final->spot(Ball::Cue)->distanceTo($legs->solved[1]->layout->spot(Ball::Cue)),
            1e-6,
        );
        self::assertEquals($legs->before(2)->layout, $legs->solved[1]->layout);
        self::assertTrue($legs->hasNext(2));
        self::assertFalse($legs->hasNext(3));
    }

    public function testAMissOrAnAimThatCannotBeEndsTheRun(): void
    {
        $soft = new ShotChoice(Ball::Four, Pocket::FootLeft, new Stroke(Tip::centre(), 0.85));
        self::assertEquals(
            new Fact('chain.staysOut', ['leg' => 1, 'ball' => Ball::Four]),
            LegChain::play(self::rack(), [$soft, self::choices()[1]])->end,
        );
        $twice = LegChain::play(self::rack(), [self::choices()[0], self::choices()[0]]);
        self::assertSame(1, $twice->done());
        self::assertSame(
            ['chain.cannotBePlayed', 2, 'layout.notOnTheTable'],
            [
                $twice->end?->kind,
                $twice->end?->values['leg'],
                $twice->end?->values['why'] instanceof Fact ? $twice->end->values['why']->kind : null,
            ],
        );
    }

    /** Without errors every run is made; with them the first leg is made as often as its own trials say, and later ones less. */
    public function testTheOddsOfARunAreThoseOfItsLegsPlayedOn(): void
    {
        $perfect = Rehearsal::of(self::rack()->withPlayer(new ExecutionErrors(0.0, 0.0, 0.0, 0.0)), self::choices(), 10);
        self::assertSame([10, 10], $perfect->made);

        $run = Rehearsal::of(self::rack(), self::choices(), 400);
        $first = Trials::of(LegChain::play(self::rack(), self::choices())->solved[0], new ShotSolver(), self::rack()->player, 400);
        self::assertEqualsWithDelta($first->chance(), $run->made[0] / 400, 0.08);
        self::assertLessThan($run->made[0], $run->made[1]);
        self::assertSame(400, $run->made[1] + array_sum($run->ended));
        self::assertEquals($run, Rehearsal::of(self::rack(), self::choices(), 400));
    }

    private static function rack(): Rack
    {
        return new Rack(Game::NineBall, Table::layout([0 => [0.9, 0.5], 4 => [1.7, 0.8], 9 => [0.4, 1.0]]));
    }

    /** @return list<ShotChoice> */
    private static function choices(): array
    {
        return [
            new ShotChoice(Ball::Four, Pocket::FootLeft, new Stroke(Tip::centre(), 1.9)),
            new ShotChoice(Ball::Nine, Pocket::HeadLeft, new Stroke(Tip::centre(), 2.2)),
        ];
    }
}
