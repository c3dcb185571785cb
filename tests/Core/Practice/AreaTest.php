<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Practice;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Practice\Area;

final class AreaTest extends TestCase
{
    /** @return iterable<string, array{Area, float, float, float, float}> spot, worth, how far outside */
    public static function spots(): iterable
    {
        $box = Area::box(2.0, 1.0, 4.0, 3.0);
        yield 'in a box' => [$box, 3.0, 2.0, 1.0, 0.0];
        yield 'on its edge' => [$box, 2.0, 1.5, 1.0, 0.0];
        yield 'at its corner' => [$box, 4.0, 3.0, 1.0, 0.0];
        yield 'beside it' => [$box, 5.0, 2.0, 0.0, 1.0];
        yield 'off its corner' => [$box, 4.3, 3.4, 0.0, 0.5];
        $hook = Area::polygon([[0.0, 0.0], [3.0, 0.0], [3.0, 1.0], [1.0, 1.0], [1.0, 3.0], [0.0, 3.0]]);
        yield 'in the arm of a hook' => [$hook, 0.5, 2.5, 1.0, 0.0];
        yield 'in the hollow of a hook' => [$hook, 2.0, 2.0, 0.0, 1.0];
        $rings = Area::rings([4.0, 2.0], [[1.0, 1.0], [0.5, 3.0]]);
        yield 'in the inner ring, whatever their order' => [$rings, 4.3, 2.4, 3.0, 0.0];
        yield 'in the outer ring' => [$rings, 4.6, 2.8, 1.0, 0.5];
        yield 'past the rings' => [$rings, 6.0, 2.0, 0.0, 1.5];
    }

    #[DataProvider('spots')]
    public function testASpotIsWorthWhatTheAreaSays(Area $area, float $long, float $short, float $worth, float $outside): void
    {
        self::assertSame($worth, $area->worth($long, $short));
        self::assertEqualsWithDelta($outside, $area->outside($long, $short), 1e-9);
    }

    public function testAnAreaBesideTheTableIsNotOnIt(): void
    {
        self::assertFalse(Area::box(8.5, 0.0, 9.0, 4.0)->isOnTable());
        self::assertTrue(Area::box(7.5, 3.5, 9.0, 5.0)->isOnTable());
    }
}
