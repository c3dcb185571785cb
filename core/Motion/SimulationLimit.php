<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Error\StatesFact;
use ZigLane\Core\Fact\Fact;

/** The simulation met a bound that keeps it from running without end; no outcome is given rather than a wrong one. */
final class SimulationLimit extends \RuntimeException implements CoreError
{
    use StatesFact;

    public static function events(int $bound, float $atSeconds): self
    {
        return new self(new Fact('simulation.events', ['bound' => $bound, 'atSeconds' => $atSeconds]));
    }

    public static function contactSearch(float $atSeconds): self
    {
        return new self(new Fact('simulation.contactSearch', ['atSeconds' => $atSeconds]));
    }

    public static function cluster(int $balls, float $atSeconds): self
    {
        return new self(new Fact('simulation.cluster', ['balls' => $balls, 'atSeconds' => $atSeconds]));
    }

    public static function cushion(int $steps): self
    {
        return new self(new Fact('simulation.cushion', ['steps' => $steps]));
    }
}
