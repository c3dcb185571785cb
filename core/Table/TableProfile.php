<?php

declare(strict_types=1);

namespace ZigLane\Core\Table;

use ZigLane\Core\Name\Rail;

/**
 * One table: its measures, cloth and cushions. SI units, angles in degrees. Every field lies within LIMITS, so that the
 * model's assumptions hold (the cushion always turns a ball round, a ball always fits the mouth).
 */
final readonly class TableProfile
{
    /** @var array<string, array{float, float, float}> default, least, most */
    public const LIMITS = [
        'length' => [2.540, 1.0, 4.0],
        'cornerMouth' => [0.1143, 0.07, 0.20],
        'sideMouth' => [0.127, 0.07, 0.22],
        'cornerShelf' => [0.0381, 0.0, 0.08],
        'sideShelf' => [0.0048, 0.0, 0.05],
        'cornerFacing' => [142.0, 130.0, 160.0],
        'sideFacing' => [104.0, 91.0, 125.0],
        'noseHeight' => [1.27, 1.1, 1.4],
        'gravity' => [9.81, 1.0, 30.0],
        'slide' => [0.20, 0.05, 0.5],
        'roll' => [0.010, 0.001, 0.1],
        'spinDecay' => [10.0, 1.0, 50.0],
        'cushionRestitution' => [0.90, 0.3, 1.0],
        'cushionFriction' => [0.40, 0.0, 0.8],
        'facingLength' => [0.10, 0.02, 0.3],
        'slope' => [0.0, 0.0, 1.0],
        'slopeDirection' => [0.0, -360.0, 360.0],
    ];

    /** The steepest slope, as a share of that on which a ball would not lie still. */
    private const STILL = 0.9;

    /** The side mouth is this much wider than the corner mouth unless it is given, metres. */
    private const SIDE_MOUTH_EXTRA = 0.0127;

    /** @throws IllegalTable If a field lies outside LIMITS */
    public function __construct(
        public float $length = self::LIMITS['length'][0],
        public float $cornerMouth = self::LIMITS['cornerMouth'][0],
        public float $sideMouth = self::LIMITS['sideMouth'][0],
        public float $cornerShelf = self::LIMITS['cornerShelf'][0],
        public float $sideShelf = self::LIMITS['sideShelf'][0],
        public float $cornerFacing = self::LIMITS['cornerFacing'][0],
        public float $sideFacing = self::LIMITS['sideFacing'][0],
        public float $noseHeight = self::LIMITS['noseHeight'][0],
        public float $gravity = self::LIMITS['gravity'][0],
        public float $slide = self::LIMITS['slide'][0],
        public float $roll = self::LIMITS['roll'][0],
        public float $spinDecay = self::LIMITS['spinDecay'][0],
        public float $cushionRestitution = self::LIMITS['cushionRestitution'][0],
        public float $cushionFriction = self::LIMITS['cushionFriction'][0],
        public float $facingLength = self::LIMITS['facingLength'][0],
        public float $slope = self::LIMITS['slope'][0],
        public float $slopeDirection = self::LIMITS['slopeDirection'][0],
    ) {
        foreach ($this->toArray() as $field => $value) {
            [, $least, $most] = self::LIMITS[$field];
            if (!($value >= $least && $value <= $most)) {
                throw IllegalTable::outOfRange($field, $value, $least, $most);
            }
        }
        if ($this->slope > self::steepest($this->roll)) {
            throw IllegalTable::outOfRange('slope', $this->slope, 0.0, self::steepest($this->roll));
        }
    }

    /**
     * The default profile with some fields replaced; the side mouth follows the corner mouth unless it is given.
     *
     * @param array<string, float> $fields keys of LIMITS
     *
     * @throws IllegalTable If a field lies outside LIMITS
     */
    public static function fromArray(array $fields): self
    {
        if (isset($fields['cornerMouth']) && !isset($fields['sideMouth'])) {
            $fields['sideMouth'] = $fields['cornerMouth'] + self::SIDE_MOUTH_EXTRA;
        }

        return new self(...$fields);
    }

    public static function ofSize(TableSize $size): self
    {
        return new self(length: $size->length());
    }

    /** @return array<string, float> every field, in the order of LIMITS */
    public function toArray(): array
    {
        /** @var array<string, float> $fields */
        $fields = get_object_vars($this);

        return $fields;
    }

    /** How far a spot lies from the nose of a rail, metres. */
    public function fromRail(Rail $rail, float $x, float $y): float
    {
        return match ($rail) {
            Rail::Head => $x,
            Rail::Foot => $this->length - $x,
            Rail::Right => $y,
            Rail::Left => $this->width() - $y,
        };
    }

    /** Width between the noses of the long rails, metres. */
    public function width(): float
    {
        return $this->length / 2;
    }

    /** How far a ball's side is past the nearest rail's nose line, metres; negative on the bed. */
    public function beyond(float $x, float $y, float $radius): float
    {
        return max($radius - $x, $x - $this->length + $radius, $radius - $y, $y - $this->width() + $radius);
    }

    /** The steepest slope that is allowed, degrees: a ball that rolls with this resistance still comes to rest. */
    public static function steepest(float $roll): float
    {
        return min(self::LIMITS['slope'][2], rad2deg(asin(min(1.0, self::STILL * $roll * 7 / 5))));
    }

    /** @return array{float, float} what pulls a ball downhill, m/s^2 along x and y; noughts on a level table */
    public function pull(): array
    {
        $pull = $this->gravity * sin(deg2rad($this->slope));

        return 0.0 === $pull ? [0.0, 0.0] : [$pull * cos(deg2rad($this->slopeDirection)), $pull * sin(deg2rad($this->slopeDirection))];
    }

    /** One diamond, metres. */
    public function diamond(): float
    {
        return $this->length / 8;
    }
}
