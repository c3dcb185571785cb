<?php

declare(strict_types=1);

namespace ZigLane\Core\Table;

use ZigLane\Core\Name\Pocket;

/**
 * One pocket as drawn by its two nose points, its two facings and its hole. The axis is the unit vector from the middle of
 * the mouth into the pocket; the first facing starts at the first nose. Metres.
 */
final readonly class PocketGeometry
{
    /** So near before the mouth a ball hangs, metres: from beside its middle the way to the middle would lead across. */
    private const HANGING = 0.02;

    public function __construct(
        public Pocket $pocket,
        public Spot $noseA,
        public Spot $noseB,
        public Spot $facingEndA,
        public Spot $facingEndB,
        public Spot $hole,
        public float $holeRadius,
        public float $axisX,
        public float $axisY,
    ) {
    }

    /** Where a shot to the middle of this pocket is aimed: halfway between the noses. */
    public function mouth(): Spot
    {
        return Spot::metres(($this->noseA->x + $this->noseB->x) / 2, ($this->noseA->y + $this->noseB->y) / 2);
    }

    /** Where a ball is sent to go in: the middle of the mouth, or for one that hangs in the jaws the hole. */
    public function target(Spot $object): Spot
    {
        return $this->depth($object) > -self::HANGING ? $this->hole : $this->mouth();
    }

    /** Distance of a spot from the mouth along the axis, positive inside the pocket, metres. */
    public function depth(Spot $spot): float
    {
        $mouth = $this->mouth();

        return ($spot->x - $mouth->x) * $this->axisX + ($spot->y - $mouth->y) * $this->axisY;
    }
}
