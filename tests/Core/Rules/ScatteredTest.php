<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Rules;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Scattered;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\TypicalTable;

final class ScatteredTest extends TestCase
{
    public function testBallsLieAnywhereAndLegallyWithTheMoneyBall(): void
    {
        $equipment = new Equipment();
        $sum = $count = 0;
        foreach (Game::cases() as $game) {
            foreach ([1, 5, 99] as $wanted) {
                $layout = Scattered::balls($game, $wanted, $equipment, new Randomness(100 * $wanted + 7));
                self::assertSame([], (new LayoutRules($equipment))->faults($layout));
                self::assertCount(1 + min($wanted, \count($game->balls())), $layout->balls());
                self::assertTrue($layout->has(Ball::Cue));
                // A game can be played from it.
                new Rack($game, $layout, $equipment);
                foreach ($layout->balls() as $ball) {
                    $sum += $layout->spot($ball)->x / $equipment->table->length;
                    ++$count;
                }
            }
            $money = [Game::NineBall->value => Ball::Nine, Game::TenBall->value => Ball::Ten, Game::EightBall->value => Ball::Eight];
            if (isset($money[$game->value])) {
                self::assertTrue(Scattered::balls($game, 1, $equipment, new Randomness(3))->has($money[$game->value]));
            }
        }
        self::assertEqualsWithDelta(0.5, $sum / $count, 0.12);
    }

    public function testTheSameSeedScattersTheSameBalls(): void
    {
        $one = Scattered::balls(Game::EightBall, 9, new Equipment(), new Randomness(5));
        self::assertEquals($one, Scattered::balls(Game::EightBall, 9, new Equipment(), new Randomness(5)));
        self::assertNotEquals($one, Scattered::balls(Game::EightBall, 9, new Equipment(), new Randomness(6)));
    }

    /** On another table balls keep their diamonds; where they then lie over each other it is refused by name. */
    public function testARackOnAnotherTableKeepsItsDiamonds(): void
    {
        $equipment = new Equipment();
        $rack = new Rack(Game::NineBall, Scattered::balls(Game::NineBall, 3, $equipment, new Randomness(8)), $equipment);
        $small = $rack->onTable(TypicalTable::Small->equipment());
        foreach ($rack->layout->balls() as $ball) {
            self::assertEqualsWithDelta(
                $rack->layout->spot($ball)->inDiamonds($equipment->table),
                $small->layout->spot($ball)->inDiamonds($small->equipment->table),
                1e-9,
            );
        }
        self::assertEqualsWithDelta($rack->layout->places(), $small->onTable($equipment)->layout->places(), 1e-9);
    }

    public function testMirroredAndTurnedTwiceIsAsItWas(): void
    {
        $equipment = new Equipment();
        $layout = Scattered::balls(Game::TenBall, 6, $equipment, new Randomness(2));
        $table = $equipment->table;
        self::assertEqualsWithDelta($layout->places(), $layout->mirrored($table)->mirrored($table)->places(), 1e-12);
        self::assertEqualsWithDelta($layout->places(), $layout->turned($table)->turned($table)->places(), 1e-12);
        self::assertEqualsWithDelta(
            $table->length - $layout->mirrored($table)->spot(Ball::Cue)->x,
            $layout->turned($table)->spot(Ball::Cue)->x,
            1e-12,
        );
    }
}
