<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;

/** A stroke that cannot be made, or that the model does not cover. */
final class IllegalStroke extends \DomainException implements CoreError
{
    /** @param string $field tip, side, height, speed, elevation, direction or aside */
    private function __construct(private readonly Fact $fact, public readonly string $field)
    {
        parent::__construct((string) $fact);
    }

    public function fact(): Fact
    {
        return $this->fact;
    }

    /**
     * @param float $offset distance of the contact from the ball's centre, as a fraction of its radius
     * @param float $limit  the greatest such distance
     */
    public static function miscue(float $offset, float $limit): self
    {
        return new self(new Fact('stroke.miscue', ['offsetShare' => $offset, 'limitShare' => $limit]), 'tip');
    }

    /** @param string $unit m/s, degrees or mm */
    public static function outOfRange(string $field, float $found, float $least, float $most, string $unit): self
    {
        return new self(
            new Fact('stroke.outOfRange', ['field' => $field, 'found' => $found, 'least' => $least, 'most' => $most, 'unit' => $unit]),
            $field,
        );
    }

    public static function notANumber(string $field): self
    {
        return new self(new Fact('stroke.notANumber', ['field' => $field]), $field);
    }
}
