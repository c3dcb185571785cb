<?php

declare(strict_types=1);

namespace ZigLane\Core\Table;

/** What a shot is played with: a table, a set of balls and a cue. */
final readonly class Equipment
{
    /** Where the table's noses, facings and holes lie. */
    public TableGeometry $geometry;

    public function __construct(
        public TableProfile $table = new TableProfile(),
        public BallSet $balls = new BallSet(),
        public Cue $cue = new Cue(),
    ) {
        $this->geometry = new TableGeometry($table);
    }

    /** How far the contact moves from the centre when the cue is moved by one tip, as a fraction of the cue ball's radius. */
    public function offsetPerTip(): float
    {
        return $this->cue->offsetPerTip($this->balls->radius);
    }

    /** One millimetre as a fraction of the cue ball's radius. */
    public function perMillimetre(): float
    {
        return 0.001 / $this->balls->radius;
    }
}
