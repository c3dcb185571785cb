<?php

declare(strict_types=1);

namespace ZigLane\Core\Error;

/** A stroke that cannot be made, or that the model does not cover. */
final class IllegalStroke extends \DomainException implements CoreError
{
    /** @param string $field side, height, speed, elevation or direction */
    private function __construct(string $message, public readonly string $field)
    {
        parent::__construct($message);
    }

    /**
     * @param float $offset distance of the contact from the ball's centre, as a fraction of its radius
     * @param float $limit  the greatest such distance
     */
    public static function miscue(float $offset, float $limit): self
    {
        return new self(\sprintf(
            'The tip would miscue: it strikes %.0f %% of the radius from the centre, and at most %.0f %% holds. Move it towards the centre.',
            100 * $offset,
            100 * $limit,
        ), 'tip');
    }

    public static function outOfRange(string $field, float $found, float $least, float $most, string $unit): self
    {
        return new self(\sprintf('%s is %s %s; it can be %s to %s.', ucfirst($field), self::number($found), $unit, self::number($least), self::number($most)), $field);
    }

    public static function notANumber(string $field): self
    {
        return new self(\sprintf('%s must be a number.', ucfirst($field)), $field);
    }

    private static function number(float $value): string
    {
        return rtrim(rtrim(\sprintf('%.4f', $value), '0'), '.');
    }
}
