<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Fit;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Fit\FittedNumber;
use ZigLane\Core\Fit\LogFit;
use ZigLane\Core\Fit\LogFitter;
use ZigLane\Core\Log\Log;
use ZigLane\Core\Player\Biases;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Tests\SimulatedPlayer;

/** Simulated players whose errors are known; the full proof with 60 of them is benchmarks/log-fit.php. */
final class LogFitterTest extends TestCase
{
    /** A player who hits 9 % too hard and aims 0.04 degrees left, much wilder with speed than his preset. */
    public function testTheLogShowsWhatAPlayerDoesWrong(): void
    {
        $true = new ExecutionErrors(0.05, 0.1, 1.0, 1.0, biases: new Biases(0.04, 0.09));
        $fit = LogFitter::of(SimulatedPlayer::log($true, 70, new Randomness(3)));
        self::assertSame([70, 70], [$fit->shots, $fit->used]);
        // Twice the half width of a 90 % interval holds every truth but one in a thousand.
        $near = static fn (
            FittedNumber $number,
            float $is,
        ): bool => abs($number->value - $is) < $number->interval[1] - $number->interval[0];
        foreach (LogFit::FIELDS as $field) {
            self::assertTrue($near($fit->deviations[$field], $true->{$field}), $field);
            self::assertTrue($near($fit->biases[$field], $true->biases->toArray()[$field]), "bias of $field");
        }
        // What is told of the speed is told for sure: he is wilder than his preset, and hits too hard.
        self::assertGreaterThan(0.055, $fit->deviations['speed']->interval[0]);
        self::assertGreaterThan(0.03, $fit->biases['speed']->interval[0]);
        self::assertSame($fit->deviations['speed']->value, $fit->player()->speed);
        self::assertSame($fit->biases['speed']->value, $fit->player()->biases->speed);
        foreach ([...$fit->deviations, ...$fit->biases] as $number) {
            self::assertLessThan($number->interval[1], $number->interval[0]);
            self::assertGreaterThanOrEqual($number->interval[0], $number->value);
            self::assertLessThanOrEqual($number->interval[1], $number->value);
        }
        self::assertNotContains('biases.speed', $fit->unidentified());
    }

    /** Nothing logged: the prior stands, and it is said that nothing was learned. */
    public function testWithoutShotsThePriorStands(): void
    {
        $fit = LogFitter::of(new Log(new ExecutionErrors(0.05, 0.055, 1.2, 1.2), []));
        self::assertEqualsWithDelta(0.05, $fit->deviations['aim']->value, 1e-9);
        self::assertEqualsWithDelta(0.0, $fit->biases['speed']->value, 1e-9);
        self::assertCount(2 * \count(LogFit::FIELDS), $fit->unidentified());
    }

    /** Old shots weigh less: of two different halves the new one counts. */
    public function testOldShotsWeighLess(): void
    {
        $old = SimulatedPlayer::log(
            new ExecutionErrors(0.05, 0.055, 1.2, 1.2, biases: new Biases(speed: -0.1)),
            40,
            new Randomness(5),
            days: -720,
        );
        $new = SimulatedPlayer::log(new ExecutionErrors(0.05, 0.055, 1.2, 1.2, biases: new Biases(speed: 0.1)), 40, new Randomness(6));
        $log = new Log($new->player, [...$old->outings, ...$new->outings]);
        $same = LogFitter::of($log, halfLife: 0.0)->biases['speed']->value;
        $late = LogFitter::of($log, halfLife: 90.0)->biases['speed']->value;
        self::assertLessThan(0.06, abs($same));
        self::assertGreaterThan(0.06, $late);
    }
}
