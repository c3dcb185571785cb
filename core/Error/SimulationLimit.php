<?php

declare(strict_types=1);

namespace ZigLane\Core\Error;

/** The simulation met a bound that keeps it from running without end; no outcome is given rather than a wrong one. */
final class SimulationLimit extends \RuntimeException implements CoreError
{
    public static function events(int $bound, float $atSeconds): self
    {
        return new self(\sprintf('The simulation was stopped after %d steps, %.3f s into the shot: too many contacts follow each other. Part the touching balls a little and try again.', $bound, $atSeconds));
    }

    public static function contactSearch(float $atSeconds): self
    {
        return new self(\sprintf('The simulation was stopped %.3f s into the shot: the time of a contact could not be found.', $atSeconds));
    }

    public static function cluster(int $balls, float $atSeconds): self
    {
        return new self(\sprintf('The simulation was stopped %.3f s into the shot: a group of %d balls does not part.', $atSeconds, $balls));
    }

    public static function cushion(int $steps): self
    {
        return new self(\sprintf('A ball does not come back from the cushion within %d steps: the frictions of this table are too high for its restitution.', $steps));
    }
}
