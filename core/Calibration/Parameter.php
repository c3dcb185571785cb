<?php

declare(strict_types=1);

namespace ZigLane\Core\Calibration;

use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\TableProfile;

/**
 * A constant of a table, its balls or the cue that tests can teach. The values are its names in `zig-lane/table-fit`. A constant is fitted
 * on a scale of its own (its logarithm where it is a scale, itself where it is a share), on which what is known of typical tables before
 * any test is a normal distribution about the default.
 */
enum Parameter: string
{
    case Roll = 'roll';
    case Slide = 'slide';
    case SpinDecay = 'spinDecay';
    case CushionRestitution = 'cushionRestitution';
    case CushionFriction = 'cushionFriction';
    case BallRestitution = 'ballRestitution';
    case BallFriction = 'ballFriction';
    case SlopeLong = 'slopeLong';
    case SlopeShort = 'slopeShort';
    case EndMassRatio = 'endMassRatio';

    /**
     * @return array{float, float, float, float, bool} default, least, most, spread before any test on its scale, whether that is a
     *                                                 logarithm
     */
    private function facts(): array
    {
        return match ($this) {
            self::Roll => [TableProfile::LIMITS['roll'][0], 0.004, 0.025, 0.28, true],
            self::Slide => [TableProfile::LIMITS['slide'][0], 0.08, 0.4, 0.25, true],
            self::SpinDecay => [TableProfile::LIMITS['spinDecay'][0], 3.0, 25.0, 0.4, true],
            self::CushionRestitution => [TableProfile::LIMITS['cushionRestitution'][0], 0.6, 1.0, 0.06, false],
            self::CushionFriction => [TableProfile::LIMITS['cushionFriction'][0], 0.1, 0.8, 0.22, false],
            self::BallRestitution => [BallSet::LIMITS['restitution'][0], 0.85, 1.0, 0.025, false],
            // Clean balls have one, dirty ones up to two (docs/physics.md, section 4).
            self::BallFriction => [1.0, 0.4, 3.0, 0.4, true],
            // Tenths of a degree: what a table has that was levelled once.
            self::SlopeLong, self::SlopeShort => [0.0, -0.45, 0.45, 0.12, false],
            self::EndMassRatio => [Cue::END_MASS_RATIO[0], 10.0, 90.0, 0.35, true],
        };
    }

    public function usual(): float
    {
        return $this->facts()[0];
    }

    /** @return array{float, float} */
    public function limits(): array
    {
        return [$this->facts()[1], $this->facts()[2]];
    }

    /** Standard deviation before any test, on its scale. */
    public function spread(): float
    {
        return $this->facts()[3];
    }

    /** Standard deviation of what its limits leave of that, on its scale. */
    public function spreadWithin(float $about): float
    {
        [$from, $to] = [$this->scaled($this->limits()[0]), $this->scaled($this->limits()[1])];
        $weights = $sum = $square = 0.0;
        for ($i = 0; $i <= 200; ++$i) {
            $at = $from + $i / 200 * ($to - $from) - $about;
            $weight = exp(-0.5 * ($at / $this->spread()) ** 2);
            $weights += $weight;
            $sum += $weight * $at;
            $square += $weight * $at * $at;
        }

        return \sqrt(max(0.0, $square / $weights - ($sum / $weights) ** 2));
    }

    /** A value on the scale on which it is fitted. */
    public function scaled(float $value): float
    {
        return $this->facts()[4] ? log($value) : $value;
    }

    /** And back, within its limits. */
    public function value(float $scaled): float
    {
        [, $least, $most, , $isLogarithm] = $this->facts();

        return max($least, min($most, $isLogarithm ? exp($scaled) : $scaled));
    }

    public function isSlope(): bool
    {
        return self::SlopeLong === $this || self::SlopeShort === $this;
    }

    /** @return list<self> those that the tests of a file may be asked for; a slope is looked for where they ask for one */
    public static function usualOnes(): array
    {
        return [
            self::Roll, self::Slide, self::SpinDecay, self::CushionRestitution, self::CushionFriction, self::BallRestitution,
            self::BallFriction,
        ];
    }
}
