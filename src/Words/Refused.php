<?php

declare(strict_types=1);

namespace ZigLane\App\Words;

use Symfony\Component\HttpKernel\Exception\UnprocessableEntityHttpException;

/** What a page sent was not understood or is not allowed: a key of the messages, and what its sentence needs to know. */
final class Refused extends UnprocessableEntityHttpException
{
    /**
     * @param array<string, string|int|float> $values
     * @param string|null                     $field  of the form that holds what is refused, by its name; null where there is none
     */
    private function __construct(public readonly string $key, public readonly array $values, public readonly ?string $field = null)
    {
        parent::__construct($key.' '.json_encode($values, \JSON_PARTIAL_OUTPUT_ON_ERROR));
    }

    /** @param array<string, string|int|float> $values */
    public static function because(string $key, array $values = [], ?string $field = null): self
    {
        return new self('refused.'.$key, $values, $field);
    }
}
