<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Rules;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\RuleNotes;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Rules\Standing;
use ZigLane\Tests\Table;

final class RuleNotesTest extends TestCase
{
    /** @param list<string> $kinds */
    #[DataProvider('racks')]
    public function testWhatMayBeShotIsCalledAndAFoulGives(Rack $rack, array $kinds): void
    {
        self::assertSame(
            array_map(static fn (string $kind): string => 'rules.'.$kind, $kinds),
            array_map(static fn (Fact $fact): string => $fact->kind, RuleNotes::of($rack)),
        );
    }

    /** @return iterable<string, array{Rack, list<string>}> */
    public static function racks(): iterable
    {
        $layout = Table::layout([0 => [0.6, 0.6], 3 => [1.5, 0.5], 8 => [2.0, 0.9], 9 => [1.2, 1.0]]);
        yield 'open table' => [new Rack(Game::EightBall, $layout, group: Group::Open), ['onOpen', 'called', 'foulInHand']];
        yield 'own group' => [new Rack(Game::EightBall, $layout, group: Group::Solids), ['onOne', 'called', 'foulInHand']];
        yield 'nine-ball' => [new Rack(Game::NineBall, $layout), ['onOne', 'slop', 'foulInHand']];
        yield 'nine-ball, called' => [
            new Rack(Game::NineBall, $layout, rules: new RuleOptions(callsNine: true)),
            ['onOne', 'called', 'foulInHand'],
        ];
        yield 'ten-ball after the break' => [
            (new Rack(Game::TenBall, $layout))->withStanding(new Standing(mayPush: true)),
            ['onOne', 'calledTen', 'foulInHand', 'pushOut'],
        ];
        yield 'straight pool' => [new Rack(Game::StraightPool, $layout), ['onAny', 'called', 'foulPoint']];
        yield 'two fouls' => [(new Rack(Game::StraightPool, $layout))->withStanding(new Standing(2)), ['onAny', 'called', 'foulThird']];
        yield 'in hand' => [
            (new Rack(Game::NineBall, $layout))->inHand(BallInHand::Kitchen),
            ['onOne', 'slop', 'foulInHand', 'kitchen'],
        ];
        $near = Table::layout([0 => [0.6, 0.6], 3 => [0.6 + 2 * Table::R + 0.006, 0.6]]);
        yield 'a chalk apart' => [new Rack(Game::NineBall, $near), ['onOne', 'slop', 'foulInHand', 'near']];
        $frozen = Table::layout([0 => [0.6, 0.6], 3 => [0.6 + 2 * Table::R, 0.6]]);
        yield 'frozen' => [new Rack(Game::NineBall, $frozen), ['onOne', 'slop', 'foulInHand', 'frozen']];
    }
}
