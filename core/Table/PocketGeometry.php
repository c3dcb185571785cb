<?php

declare(strict_types=1);

namespace ZigLane\Core\Table;

use ZigLane\Core\Position\Spot;

/**
 * One pocket as drawn by its two nose points, its two facings and its hole. The axis is the unit vector from the middle of
 * the mouth into the pocket; the first facing starts at the first nose. Metres.
 */
final readonly class PocketGeometry
{
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

    /** Distance of a spot from the mouth along the axis, positive inside the pocket, metres. */
    public function depth(Spot $spot): float
    {
        $mouth = $this->mouth();

        return ($spot->x - $mouth->x) * $this->axisX + ($spot->y - $mouth->y) * $this->axisY;
    }
}
