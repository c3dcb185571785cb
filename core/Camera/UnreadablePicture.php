<?php

declare(strict_types=1);

namespace ZigLane\Core\Camera;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Error\StatesFact;
use ZigLane\Core\Fact\Fact;

/** A picture that cannot be read, or in which no table can be found. */
final class UnreadablePicture extends \DomainException implements CoreError
{
    use StatesFact;

    /** @param array<string, string|int|float> $values */
    public static function because(string $kind, array $values = []): self
    {
        return new self(new Fact('picture.'.$kind, $values));
    }
}
