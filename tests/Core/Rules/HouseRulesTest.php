<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Rules;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\HouseRules;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Stroke\Caution;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Tests\Table;

/** What a room forbids goes with its racks and is not offered there. */
final class HouseRulesTest extends TestCase
{
    public function testARackIsBegunWithTheRulesOfTheRoom(): void
    {
        $house = HouseRules::fromArray(['jump' => true, 'callsAll' => true, 'noThirdFoul' => true, 'any' => true, 'masse' => 'yes']);
        self::assertSame(
            ['jump' => true, 'masse' => false, 'hardBreak' => false, 'callsAll' => true, 'noThirdFoul' => true],
            $house->toArray(),
        );
        self::assertSame(['callsNine', 'noThirdFoul', 'noRaisedCue'], array_keys($house->options(Game::NineBall)->chosen()));
        // What a game does not have is not chosen in it.
        self::assertSame(['noRaisedCue'], array_keys($house->options(Game::EightBall)->chosen()));
        self::assertSame([], (new HouseRules())->options(Game::TenBall)->chosen());
    }

    public function testWhatAStrokeCanHurtIsWhatIsForbidden(): void
    {
        $rules = RuleOptions::of(['noRaisedCue', 'noHardStroke']);
        $strokes = [
            [
                new Stroke(Tip::fractions(0.0, 0.0), 2.0, 35.0),
                Caution::RaisedCue,
            ], [new Stroke(Tip::fractions(0.0, 0.0), 9.0, 2.0), Caution::BreakSpeed],
        ];
        foreach ($strokes as [$stroke, $caution]) {
            self::assertSame([$caution], $stroke->cautions());
            self::assertTrue($rules->forbids($caution));
            self::assertTrue($rules->forbidsStroke(deg2rad($stroke->elevation), $stroke->speed));
            self::assertFalse((new RuleOptions())->forbidsStroke(deg2rad($stroke->elevation), $stroke->speed));
        }
        self::assertFalse($rules->forbidsStroke(deg2rad(12.0), 5.0));
    }

    public function testTheyGoThroughAFile(): void
    {
        $rack = new Rack(
            Game::TenBall,
            Table::layout([0 => [1.0, 0.5], 10 => [2.0, 0.8]]),
            rules: RuleOptions::of(['noRaisedCue', 'noHardStroke']),
        );
        self::assertEquals($rack, RackFile::parse((new RackFile($rack))->write())->rack);
    }
}
