<?php

declare(strict_types=1);

namespace ZigLane\Core\Table;

/** A point of the table in metres: x from the head rail towards the foot rail, y from the right rail towards the left rail. */
final readonly class Spot
{
    private function __construct(public float $x, public float $y)
    {
    }

    public static function metres(float $x, float $y): self
    {
        return new self($x, $y);
    }

    /** @param float $long 0 to 8 from the head rail; @param float $short 0 to 4 from the right rail */
    public static function diamonds(float $long, float $short, TableProfile $table): self
    {
        return new self($long * $table->diamond(), $short * $table->diamond());
    }

    /** @return array{float, float} [long, short] in diamonds */
    public function inDiamonds(TableProfile $table): array
    {
        return [$this->x / $table->diamond(), $this->y / $table->diamond()];
    }

    public function distanceTo(self $other): float
    {
        return hypot($other->x - $this->x, $other->y - $this->y);
    }

    /** Direction from here to the other spot, radians counter-clockwise from +x. */
    public function directionTo(self $other): float
    {
        return atan2($other->y - $this->y, $other->x - $this->x);
    }

    /** The spot at a distance (metres) in a direction (radians). */
    public function towards(float $direction, float $distance): self
    {
        return new self($this->x + $distance * cos($direction), $this->y + $distance * sin($direction));
    }
}
