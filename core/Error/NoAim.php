<?php

declare(strict_types=1);

namespace ZigLane\Core\Error;

/** No direction of the cue sends the object ball to the middle of the chosen pocket. */
final class NoAim extends \DomainException implements CoreError
{
    public static function cutTooThin(string $ball, string $pocket, float $cutDegrees): self
    {
        return new self(\sprintf('The %s cannot be cut to %s from here: the cut would be %.0f degrees and less than 90 is needed. Move the cue ball or choose another pocket.', $ball, $pocket, $cutDegrees));
    }

    public static function notReached(string $ball, string $pocket): self
    {
        return new self(\sprintf('With this stroke no direction sends the %s to the middle of %s: the cue ball stops, curves or throws too much on the way. Strike harder, with less side or a lower cue.', $ball, $pocket));
    }

    public static function stopsShort(string $ball, float $byMetres): self
    {
        return new self(\sprintf('The cue ball stops %.0f cm short of the %s. Strike harder.', max(1, $byMetres * 100), $ball));
    }

    public static function pocketShut(string $ball, string $pocket): self
    {
        return new self(\sprintf('The %s lies past the mouth of %s and cannot be played to its middle. Choose another pocket.', $ball, $pocket));
    }
}
