<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Format;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;
use ZigLane\Core\Table\TableSize;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;
use ZigLane\Tests\Told;

/** A rack written out and read again is the same rack to the last bit, or a player's sheet changes under his hands. */
final class RackFileTest extends TestCase
{
    public function testWritingAndReadingIsLossless(): void
    {
        $chance = new Chance(3);
        foreach (TableSize::cases() as $size) {
            foreach (Game::cases() as $game) {
                $table = TableProfile::ofSize($size);
                $layout = (new Table($table))->randomLayout($chance, $chance->int(2, 1 + $game->rules()->highest), 0.2);
                $rack = new Rack($game, $layout, new Equipment($table), group: Game::EightBall === $game ? Group::Stripes : null);
                $shot = new ShotChoice(Ball::One, Pocket::SideLeft, new Stroke(Tip::atClock(4.3, 0.26), 2.345678901234567, 3.1));
                $rack = $rack->withRules(new RuleOptions(callsNine: $chance->int(0, 1) > 0, eightOnBreak: $chance->int(0, 1) > 0));
                $file = new RackFile($rack, 'Ärger mit der „9“', $shot);

                self::assertEquals($file, RackFile::parse($file->write()));
                self::assertSame($file->write(), RackFile::parse($file->write())->write());
            }
        }
    }

    public function testAFrozenBallStaysFrozen(): void
    {
        foreach (TableSize::cases() as $size) {
            $table = TableProfile::ofSize($size);
            $spot = (new LayoutRules(new Equipment($table)))->frozenToNearestRail(Spot::metres(0.7, 0.1));
            $rack = new Rack(Game::NineBall, Table::layout([9 => [$spot->x, $spot->y]]), new Equipment($table));

            self::assertEqualsWithDelta(Table::R, RackFile::parse((new RackFile($rack))->write())->rack->layout->spot(Ball::Nine)->y, 2e-7);
        }
    }

    public function testTheExampleOfTheFormatIsRead(): void
    {
        $file = RackFile::parse(
            '{"format": "zig-lane/rack", "version": 1, "game": "nine-ball", "layoutDiamonds": {"cue": [2.0, 1.5], "3": [5.1, 0.9], "7": [6.5, 3.2], "9": [4.4, 2.7]}, "ballInHand": "none", "group": null, "player": {"aim": 0.06, "speed": 0.06, "tipSide": 1.5, "tipHeight": 1.5}, "cue": {"endMassRatio": 30}, "table": {}, "balls": {}}',
        );

        self::assertSame(Game::NineBall, $file->rack->game);
        self::assertSame(BallInHand::None, $file->rack->ballInHand);
        self::assertSame([Ball::Cue, Ball::Three, Ball::Seven, Ball::Nine], $file->rack->layout->balls());
        self::assertNull($file->shot);
    }

    public function testFaultsAreAllTold(): void
    {
        try {
            RackFile::parse(
                '{"format": "zig-lane/rack", "version": 1, "game": "snooker", "layoutDiamonds": {"cue": [2, 1]}, "ballInHand": "kitchen", "rules": {"callsNine": 1, "any": true}, "shot": {"ball": "cue", "pocket": "XX", "speed": 1}}',
            );
            self::fail('the file was let through');
        } catch (InvalidFile $e) {
            self::assertSame([
                'game: found "snooker"; allowed: eight-ball, nine-ball, ten-ball, straight-pool',
                'layoutDiamonds.cue: is given although ballInHand is "kitchen"; leave it out, or set ballInHand to "none"',
                'rules.any: is not a known field; allowed: callsNine, tenLast, eightOnBreak, eightReracks, noThirdFoul, noRaisedCue, noHardStroke, tenAnyTime',
                'rules.callsNine: found 1; true or false is allowed',
                'shot.ball: found "cue"; allowed: "1" to "15"',
                'shot.pocket: found "XX"; allowed: HR, SR, FR, HL, SL, FL',
            ], explode("\n", Told::of($e)));
        }
    }

    public function testABallThatTheGameDoesNotUseIsRefused(): void
    {
        self::assertSame(
            'The 12 is not used in nine-ball, which is played with the 1 to the 9.',
            Told::refusal(static fn (): Rack => new Rack(Game::NineBall, Table::layout([12 => [1.0, 0.5]])), IllegalLayout::class),
        );
    }

    public function testAnImpossibleRackCannotBeMade(): void
    {
        $rack = new Rack(Game::NineBall, Table::layout([1 => [1.0, 0.5]]));

        $this->expectException(IllegalLayout::class);
        $rack->withBall(Ball::Two, Spot::metres(1.01, 0.5));
    }
}
