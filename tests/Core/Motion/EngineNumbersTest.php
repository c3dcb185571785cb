<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Motion;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\Internal\Body;
use ZigLane\Core\Motion\Internal\PackedEvent;
use ZigLane\Core\Motion\Internal\Surfaces;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\TableProfile;

/** Numbers that the engine packs and repeats for speed. */
final class EngineNumbersTest extends TestCase
{
    /** Body keeps the numbers of Surfaces as its own, because constants of another class cost a search at run time. */
    public function testTheNumbersOfSurfacesAreThoseThatABallCountsOn(): void
    {
        $body = (new \ReflectionClass(Body::class))->getConstants();
        $compared = 0;
        foreach ((new \ReflectionClass(Surfaces::class))->getConstants() as $name => $number) {
            if (\is_int($number)) {
                self::assertSame($number, $body[$name], $name);
                ++$compared;
            }
        }
        self::assertSame(13, $compared);
    }

    public function testThePocketsHaveTheirNumbersWhereTheNamesSay(): void
    {
        $table = new TableProfile();
        $pocket = (new Surfaces($table, new BallSet()))->pockets[2];

        self::assertEqualsWithDelta($table->cornerMouth / 2, $pocket[Surfaces::HOLE_RADIUS], 1e-12);
        self::assertEqualsWithDelta(1.0, hypot($pocket[Surfaces::AXIS_X], $pocket[Surfaces::AXIS_Y]), 1e-12);
        self::assertEqualsWithDelta(($pocket[Surfaces::NOSE] + $pocket[Surfaces::NOSE + 2]) / 2, $pocket[Surfaces::MOUTH_X], 1e-12);
        self::assertEqualsWithDelta(
            0.0,
            $pocket[Surfaces::NORMAL] * $pocket[Surfaces::FACING_ALONG]
                + $pocket[Surfaces::NORMAL + 1] * $pocket[Surfaces::FACING_ALONG + 1],
            1e-12,
        );
    }

    public function testAnEventIsUnpackedAsItWasPacked(): void
    {
        foreach ([0, 7, 15, 31] as $ball) {
            foreach ([0, 1, 15, 30] as $other) {
                $event = PackedEvent::meeting($ball, $other);
                self::assertSame(
                    [PackedEvent::BALL, $ball, $other, -1],
                    [PackedEvent::kind($event), PackedEvent::ball($event), PackedEvent::other($event), PackedEvent::place($event)],
                );
            }
            foreach ([PackedEvent::CUSHION, PackedEvent::JAW, PackedEvent::POCKET] as $kind) {
                $event = PackedEvent::at($kind, $ball, 5);
                self::assertSame(
                    [$kind, $ball, -1, 5],
                    [PackedEvent::kind($event), PackedEvent::ball($event), PackedEvent::other($event), PackedEvent::place($event)],
                );
            }
            foreach ([PackedEvent::ROLL, PackedEvent::REST] as $kind) {
                $event = PackedEvent::alone($kind, $ball);
                self::assertSame(
                    [$kind, $ball, -1, -1],
                    [PackedEvent::kind($event), PackedEvent::ball($event), PackedEvent::other($event), PackedEvent::place($event)],
                );
            }
        }
    }
}
