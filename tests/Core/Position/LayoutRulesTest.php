<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Position;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\IllegalTable;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableGeometry;
use ZigLane\Core\Table\TableProfile;
use ZigLane\Core\Table\TableSize;
use ZigLane\Tests\Table;
use ZigLane\Tests\Told;

/** Where balls can lie: a layout that is let through wrongly spoils everything after it. */
final class LayoutRulesTest extends TestCase
{
    private LayoutRules $rules;

    protected function setUp(): void
    {
        $this->rules = new LayoutRules(new Equipment());
    }

    /** @param array{float, float} $spot */
    #[DataProvider('lies')]
    public function testABallLiesOrIsToldWhyNot(array $spot, ?string $fault): void
    {
        $faults = $this->rules->faults(Table::layout([7 => $spot]));

        self::assertSame($fault, isset($faults[0]) ? Told::of($faults[0]) : null);
    }

    /** @return iterable<string, array{array{float, float}, string|null}> */
    public static function lies(): iterable
    {
        $r = Table::R;
        yield 'open table' => [[1.0, 0.5], null];
        yield 'frozen to the right rail' => [[1.0, $r], null];
        yield 'frozen with an overlap that counts as touching' => [[1.0, $r - 0.9e-5], null];
        yield 'in the right rail' => [[1.0, $r - 0.002], 'The 7 is off the cloth by 2.0 mm.'];
        yield 'behind the foot rail' => [[2.6, 0.6], 'The 7 is off the cloth by 88.6 mm.'];
        yield 'hanging in a side pocket' => [[1.27, 0.010], null];
        yield 'over the hole of a side pocket' => [[1.27, -0.02], 'The 7 lies over the hole of pocket SR and would drop.'];
        yield 'hanging in a corner' => [[2.54 - 0.027, 1.27 - 0.027], null];
        yield 'in the jaw of a corner' => [[2.54 - 0.062, 1.27 - 0.012], 'The 7 stands 7.5 mm deep in the cushion at pocket FL.'];
        yield 'on a rail just outside the mouth' => [
            [2.54 - 0.0808 - 0.010, $r - 0.0016],
            'The 7 stands 1.6 mm deep in the cushion at pocket FR.',
        ];
        yield 'not a number' => [[\NAN, 0.5], 'The 7 is nowhere on the cloth.'];
    }

    public function testOverlapIsToldAtTheLaterBall(): void
    {
        $faults = $this->rules->faults(Table::layout([0 => [1.0, 0.5], 4 => [1.05305, 0.5]]));

        self::assertCount(1, $faults);
        self::assertSame(Ball::Four, $faults[0]->ball);
        self::assertSame('layout.overlap', $faults[0]->fact()->kind);
        self::assertEqualsWithDelta(0.0041, $faults[0]->fact()->values['byMetres'], 1e-9);
        self::assertSame('The 4 overlaps the cue ball by 4.1 mm. Balls can touch but not overlap.', Told::of($faults[0]));
    }

    public function testTouchingBallsAreNotAnOverlap(): void
    {
        self::assertSame([], $this->rules->faults(Table::layout([0 => [1.0, 0.5], 4 => [1.0 + 2 * Table::R - 0.9e-5, 0.5]])));
    }

    public function testAMissingBallIsNamed(): void
    {
        self::assertStringStartsWith(
            'The 3 is not on the table',
            Told::refusal(static fn (): Spot => Table::layout([0 => [1.0, 0.5]])->spot(Ball::Three), IllegalLayout::class),
        );
    }

    public function testSnapToRailFreezesToTheNearest(): void
    {
        self::assertEquals(Spot::metres(1.0, Table::R), $this->rules->frozenToNearestRail(Spot::metres(1.0, 0.2)));
        self::assertEquals(Spot::metres(2.54 - Table::R, 0.6), $this->rules->frozenToNearestRail(Spot::metres(2.4, 0.6)));
        self::assertEquals(Spot::metres(Table::R, 0.6), $this->rules->frozenToNearestRail(Spot::metres(0.1, 0.6)));
        self::assertEquals(Spot::metres(1.6, 1.27 - Table::R), $this->rules->frozenToNearestRail(Spot::metres(1.6, 1.1)));
    }

    public function testDiamondsAreEighthsOfTheLength(): void
    {
        foreach (TableSize::cases() as $size) {
            $table = TableProfile::ofSize($size);
            $spot = Spot::diamonds(6.0, 2.0, $table);
            self::assertEqualsWithDelta(0.75 * $size->length(), $spot->x, 1e-12);
            self::assertEqualsWithDelta($table->width() / 2, $spot->y, 1e-12);
        }
    }

    public function testPocketsAreMirrorImages(): void
    {
        $geometry = new TableGeometry(new TableProfile());
        $foot = $geometry->at(Pocket::FootLeft);
        $head = $geometry->at(Pocket::HeadRight);

        self::assertEqualsWithDelta(2.54 - $head->hole->x, $foot->hole->x, 1e-12);
        self::assertEqualsWithDelta(1.27 - $head->hole->y, $foot->hole->y, 1e-12);
        self::assertEqualsWithDelta(0.1143, $foot->noseA->distanceTo($foot->noseB), 1e-12);
        self::assertEqualsWithDelta(
            0.127,
            $geometry->at(Pocket::SideLeft)->noseA->distanceTo($geometry->at(Pocket::SideLeft)->noseB),
            1e-12,
        );
        // Facings close in on the hole by 7 degrees a side at a corner, 14 at a side pocket.
        self::assertEqualsWithDelta(0.1143 - 2 * 0.1 * sin(deg2rad(7)), $foot->facingEndA->distanceTo($foot->facingEndB), 1e-12);
    }

    public function testATableOutsideTheModelIsRefusedByName(): void
    {
        try {
            new TableProfile(slide: 0.9);
            self::fail('a cloth of 0.9 was let through');
        } catch (IllegalTable $e) {
            self::assertSame('slide is 0.9; it can be 0.05 to 0.5.', Told::of($e));
        }
    }

    public function testTheSideMouthFollowsTheCornerMouth(): void
    {
        self::assertEqualsWithDelta(0.1016 + 0.0127, TableProfile::fromArray(['cornerMouth' => 0.1016])->sideMouth, 1e-12);
        self::assertSame(0.13, TableProfile::fromArray(['cornerMouth' => 0.1016, 'sideMouth' => 0.13])->sideMouth);
    }
}
