<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Error\StatesFact;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;

/** No direction of the cue sends the object ball to the middle of the chosen pocket. */
final class NoAim extends \DomainException implements CoreError
{
    use StatesFact;

    public static function cutTooThin(Ball $ball, Pocket $pocket, float $cutDegrees): self
    {
        return new self(new Fact('aim.cutTooThin', ['ball' => $ball, 'pocket' => $pocket, 'cutDegrees' => $cutDegrees]));
    }

    public static function notReached(Ball $ball, Pocket $pocket): self
    {
        return new self(new Fact('aim.notReached', ['ball' => $ball, 'pocket' => $pocket]));
    }

    public static function stopsShort(Ball $ball, float $byMetres): self
    {
        return new self(new Fact('aim.stopsShort', ['ball' => $ball, 'byMetres' => $byMetres]));
    }

    public static function pocketShut(Ball $ball, Pocket $pocket): self
    {
        return new self(new Fact('aim.pocketShut', ['ball' => $ball, 'pocket' => $pocket]));
    }
}
