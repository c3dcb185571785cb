<?php

declare(strict_types=1);

namespace ZigLane\App\Words;

use Symfony\Component\HttpKernel\Exception\UnprocessableEntityHttpException;

/** What a page sent was not understood or is not allowed: a key of the messages, and what its sentence needs to know. */
final class Refused extends UnprocessableEntityHttpException
{
    /** @param array<string, string|int|float> $values */
    private function __construct(public readonly string $key, public readonly array $values)
    {
        parent::__construct($key.' '.json_encode($values, \JSON_PARTIAL_OUTPUT_ON_ERROR));
    }

    /** The field of a form that holds what is refused, by its name on the shot desk; null where it is none of one field. */
    public function field(): ?string
    {
        return match (true) {
            'refused.clock' === $this->key => 'clock',
            'refused.number' === $this->key => [
                'The tip offset' => 'tips',
                'The speed' => 'lengths',
                'The elevation' => 'elevation',
                'The side of the pocket' => 'aside',
                'The direction of the cue' => 'direction',
            ][(string) ($this->values['what'] ?? '')] ?? null,
            default => null,
        };
    }

    /** @param array<string, string|int|float> $values */
    public static function because(string $key, array $values = []): self
    {
        return new self('refused.'.$key, $values);
    }
}
