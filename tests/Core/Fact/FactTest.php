<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Fact;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;

final class FactTest extends TestCase
{
    public function testItComesBackFromAFileAsItWas(): void
    {
        $fact = new Fact('reason.example', [
            'ball' => Ball::Seven,
            'cue' => Ball::Cue,
            'pocket' => Pocket::FootRight,
            'rail' => Rail::Foot,
            'others' => [Ball::One, Ball::Nine],
            'rails' => [Rail::Left, Rail::Head],
            'why' => new Fact('lane.scratch', ['pocket' => Pocket::SideLeft]),
            'parts' => [new Fact('gap.partlyOpen')],
            'chanceShare' => 0.25,
            'count' => 3,
            'word' => 'solids',
            'is' => true,
        ]);

        self::assertEquals($fact, Fact::fromArray((array) json_decode(json_encode($fact->toArray(), \JSON_THROW_ON_ERROR), true)));
    }

    public function testWhatIsNoFactIsNone(): void
    {
        foreach ([[], ['kind' => 3], ['kind' => 'reason'], ['kind' => '../x.y'], ['kind' => 'a.b'] + array_fill(0, 20, 1)] as $array) {
            self::assertNull(Fact::fromArray($array));
        }
        $long = Fact::fromArray(['kind' => 'reason.told', 'text' => str_repeat('x', 5000)])?->values['text'];
        self::assertIsString($long);
        self::assertSame(200, mb_strlen($long));
    }
}
