<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Player;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Player\Deviations;
use ZigLane\Core\Player\Miscue;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Table\Cue;
use ZigLane\Tests\Table;

final class MiscueTest extends TestCase
{
    /** The distance of a two-dimensional normal error from its middle (Rayleigh): past L with chance exp(-L^2 / 2 s^2). */
    public function testFromTheMiddleItIsTheClosedForm(): void
    {
        $millimetres = 4.0;
        $deviation = 0.001 * $millimetres / Table::R;
        $chance = Miscue::chance(Strike::degrees(0.0, 2.0), new Deviations(0.0, 0.0, $millimetres, $millimetres), Table::R);
        self::assertEqualsWithDelta(exp(-0.5 * (Cue::MISCUE_LIMIT / $deviation) ** 2), $chance, 1e-6);
    }

    #[TestWith([0.0, -0.4, 1.5, 1.5])]
    #[TestWith([0.3, 0.3, 0.8, 2.0])]
    #[TestWith([-0.45, 0.1, 4.0, 0.4])]
    #[TestWith([0.2, -0.1, 0.0, 0.0])]
    public function testItIsTheShareOfStrokesWithErrorsThatMiscue(float $side, float $height, float $tipSide, float $tipHeight): void
    {
        $errors = new Deviations(0.05, 0.05, $tipSide, $tipHeight);
        $meant = Strike::degrees(30.0, 2.0, $side, $height);
        $chance = Miscue::chance($meant, $errors, Table::R);
        $random = new Randomness(5);
        $miscues = 0;
        for ($i = 0; $i < 5000; ++$i) {
            try {
                $errors->disturb($meant, $random, Table::R);
            } catch (IllegalStroke) {
                ++$miscues;
            }
        }
        self::assertEqualsWithDelta($miscues / 5000, $chance, 4 * \sqrt(max(1e-4, $chance * (1 - $chance)) / 5000));
    }
}
