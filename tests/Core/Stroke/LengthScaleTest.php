<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Stroke;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Stroke\LengthScale;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

final class LengthScaleTest extends TestCase
{
    /**
     * The run on one line is the engine's, to half a centimetre of up to 18 metres, from a crawl to the fastest stroke on unlike tables: a
     * rounding may decide on the length of a step in the cushion law, and that on the speed by one in ten thousand.
     */
    #[DataProvider('tables')]
    public function testItRunsAsTheEngineDoes(Equipment $equipment): void
    {
        $scale = new LengthScale($equipment);
        $start = Layout::empty()->with(Ball::Cue, Spot::metres($equipment->balls->radius, $equipment->table->width() / 2));
        foreach ([0.05, 0.4, 0.9, 1.47, 2.2, 3.3, 5.0, 8.0, 11.5, Strike::MAX_SPEED] as $speed) {
            $run = (new EventSimulator($equipment))->play($start, Strike::degrees(0.0, $speed, 0.0, 0.4))->trajectory(Ball::Cue)->length();
            self::assertEqualsWithDelta($run / $equipment->table->length, $scale->lengths($speed), 2e-3, "at $speed m/s");
        }
    }

    /** @return iterable<string, array{Equipment}> */
    public static function tables(): iterable
    {
        yield 'the default' => [new Equipment()];
        yield 'a small slow one' => [new Equipment(new TableProfile(length: 1.9812, roll: 0.016, cushionRestitution: 0.75))];
        yield 'a quick one with dead cushions' => [new Equipment(new TableProfile(
            roll: 0.006,
            slide: 0.12,
            cushionRestitution: 0.4,
            cushionFriction: 0.05,
        ))];
        yield 'other balls' => [new Equipment(balls: new BallSet(radius: 0.026))];
    }

    public function testSpeedAndLengthsAreInverse(): void
    {
        $scale = new LengthScale(new Equipment());
        foreach ([0.1, 0.6, 1.3, 2.9, 4.4, 6.1] as $lengths) {
            self::assertEqualsWithDelta($lengths, $scale->lengths($scale->speed($lengths)), 1e-3);
        }
        self::assertSame(Strike::MAX_SPEED, $scale->speed(50.0));
    }
}
