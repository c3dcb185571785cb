<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Stroke;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Stroke\Hand;
use ZigLane\Core\Stroke\Reach;
use ZigLane\Core\Stroke\Stance;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;
use ZigLane\Core\Table\TableSize;

/** Where players stand is common practice, no source. */
final class StanceTest extends TestCase
{
    /** Along a rail on his left a right-hander stands beside the table; along one on his right the table is where he would stand. */
    public function testAlongARailTheHandDecides(): void
    {
        $table = new TableProfile();
        $alongRight = [Spot::metres(1.6, 0.06), 0.0];
        $right = Stance::of(...$alongRight, hand: Hand::Right, table: $table);
        $left = Stance::of(...$alongRight, hand: Hand::Left, table: $table);

        self::assertSame(Reach::Rest, $right->reach);
        self::assertSame([Reach::Easy, Rail::Right], [$left->reach, $left->rail]);
        $alongLeft = Stance::of(Spot::metres(1.6, $table->width() - 0.06), 0.0, Hand::Right, $table);
        self::assertSame([Reach::Easy, Rail::Left], [$alongLeft->reach, $alongLeft->rail]);
    }

    #[DataProvider('shots')]
    public function testTheOtherHandIsTheSameInAMirror(float $x, float $y, float $degrees): void
    {
        $table = new TableProfile();
        $right = Stance::of(Spot::metres($x, $y), deg2rad($degrees), Hand::Right, $table);
        $left = Stance::of(Spot::metres($x, $table->width() - $y), deg2rad(-$degrees), Hand::Left, $table);

        // Places are looked at every two centimetres from one corner on.
        self::assertEqualsWithDelta($right->metres, $left->metres, 0.02);
        self::assertEqualsWithDelta($right->place->x, $left->place->x, 0.03);
        self::assertEqualsWithDelta($table->width() - $right->place->y, $left->place->y, 0.03);
    }

    /** @return iterable<array{float, float, float}> */
    public static function shots(): iterable
    {
        yield [0.4, 0.5, 0.0];
        yield [1.3, 0.635, 77.0];
        yield [2.1, 0.2, 200.0];
        yield [1.0, 1.0, -30.0];
    }

    /** The player stands off the table, behind his bridge, with his body on the side of his cue. */
    #[DataProvider('shots')]
    public function testHeStandsBesideTheTableAndBehindHisBridge(float $x, float $y, float $degrees): void
    {
        $table = new TableProfile();
        $direction = deg2rad($degrees);
        foreach (Hand::cases() as $hand) {
            $stance = Stance::of(Spot::metres($x, $y), $direction, $hand, $table);
            [$dx, $dy] = [$stance->place->x - $stance->bridge->x, $stance->place->y - $stance->bridge->y];

            self::assertGreaterThan(0.12, $table->beyond($stance->place->x, $stance->place->y, 0.0));
            self::assertLessThanOrEqual(0.2, cos($direction) * $dx + sin($direction) * $dy);
            $aside = cos($direction) * $dy - sin($direction) * $dx;
            self::assertGreaterThanOrEqual(0.1, Hand::Right === $hand ? $aside : -$aside);
            self::assertEqualsWithDelta(0.2, $stance->bridge->distanceTo(Spot::metres($x, $y)), 1e-9);
        }
    }

    /** From the head string an opening shot is easy for either hand; the middle of a small table is nearer than that of a large one. */
    public function testWhatIsNearIsEasyAndASmallTableIsNearer(): void
    {
        foreach (Hand::cases() as $hand) {
            self::assertSame(Reach::Easy, Stance::of(Spot::metres(0.5, 0.6), 0.0, $hand, new TableProfile())->reach);
        }
        $nine = new TableProfile();
        $seven = TableProfile::ofSize(TableSize::Seven);
        $middle = static fn (TableProfile $table): float => Stance::of(
            Spot::metres($table->length / 2, $table->width() / 2), 0.0, Hand::Right, $table,
        )->metres;
        self::assertLessThan($middle($nine), $middle($seven));
    }

    public function testOfAShotThatIsFarItIsSaidWhetherTheOtherHandIsNearer(): void
    {
        $far = Stance::of(Spot::metres(1.6, 0.06), 0.0, Hand::Right, new TableProfile())->told();
        self::assertSame('stance.rest', $far->kind);
        self::assertTrue($far->values['isNearer']);
        self::assertSame('left', $far->values['hand']);
        $near = Stance::of(Spot::metres(0.5, 0.6), 0.0, Hand::Right, new TableProfile())->told();
        self::assertSame('stance.easy', $near->kind);
        self::assertFalse($near->values['isNearer']);
    }
}
