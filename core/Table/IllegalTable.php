<?php

declare(strict_types=1);

namespace ZigLane\Core\Table;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Error\StatesFact;
use ZigLane\Core\Fact\Fact;

/** A table, ball set or cue whose constants lie outside what the model covers. */
final class IllegalTable extends \DomainException implements CoreError
{
    use StatesFact;

    /** @param string $field in the words of the shot file */
    public static function outOfRange(string $field, float $found, float $least, float $most): self
    {
        return new self(new Fact('table.outOfRange', ['field' => $field, 'found' => $found, 'least' => $least, 'most' => $most]));
    }
}
