<?php

declare(strict_types=1);

namespace ZigLane\Core\Calibration;

use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\IllegalTable;
use ZigLane\Core\Table\TableProfile;

/** What is known of a table before its tests, and which of its constants are to be found. */
final readonly class Base
{
    /** The slope that is left to a table on which a ball must lie still, as a share of the steepest. */
    private const STILL = 0.98;

    /**
     * @param list<Parameter> $unknown
     * @param bool            $mayTilt whether a slope is looked for where the tests ask for one: it is not known
     */
    public function __construct(public Equipment $equipment, public array $unknown, public bool $mayTilt = true)
    {
    }

    /**
     * The table with constants in the place of what it has; those that are not given stay.
     *
     * @param array<string, float> $values by Parameter
     *
     * @throws IllegalTable Never within the limits of the parameters
     */
    public function with(array $values): Equipment
    {
        $table = $this->equipment->table->toArray();
        $balls = $this->equipment->balls->toArray();
        $table = [...$table, ...array_intersect_key($values, $table)];
        $balls['restitution'] = $values[Parameter::BallRestitution->value] ?? $balls['restitution'];
        if (isset($values[Parameter::SlopeLong->value]) || isset($values[Parameter::SlopeShort->value])) {
            [$long, $short] = [$values[Parameter::SlopeLong->value] ?? 0.0, $values[Parameter::SlopeShort->value] ?? 0.0];
            $table['slope'] = min(hypot($long, $short), self::STILL * TableProfile::steepest($table['roll']));
            $table['slopeDirection'] = rad2deg(atan2($short, $long));
        }
        $cue = $this->equipment->cue;
        $end = $values[Parameter::EndMassRatio->value] ?? $cue->endMassRatio;

        $balls = (new BallSet(...$balls))->dirtier($values[Parameter::BallFriction->value] ?? 1.0);

        return new Equipment(new TableProfile(...$table), $balls, new Cue($end, $cue->tipWidth, $cue->tipDome));
    }

    /** What a constant is taken to be before any test, on the scale on which it is fitted. */
    public function centre(Parameter $parameter): float
    {
        return $parameter->scaled($this->prior($parameter));
    }

    /** What a constant is taken to be before any test. */
    public function prior(Parameter $parameter): float
    {
        return match ($parameter) {
            Parameter::BallRestitution => $this->equipment->balls->restitution,
            Parameter::BallFriction => 1.0,
            Parameter::SlopeLong, Parameter::SlopeShort => 0.0,
            Parameter::EndMassRatio => $this->equipment->cue->endMassRatio,
            default => $this->equipment->table->toArray()[$parameter->value],
        };
    }
}
