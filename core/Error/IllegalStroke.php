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
     * @param float $perTip that distance for one tip of offset
     */
    public static function miscue(float $offset, float $limit, float $perTip): self
    {
        return new self(\sprintf(
            'The tip would miscue: it strikes %.2f of the radius (%.1f tips) from the centre; at most %.2f (%.1f tips) holds. Move it towards the centre.',
            $offset,
            $offset / $perTip,
            $limit,
            floor(10 * $limit / $perTip) / 10,
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
