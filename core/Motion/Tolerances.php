<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

/** Every numerical tolerance of the simulation, each with its purpose and unit. */
final readonly class Tolerances
{
    public function __construct(
        /** A gap up to this is contact: far above rounding (1e-15), far below what can be seen. Metres. */
        public float $gap = 1e-11,
        /** Slip below this is rolling, metres per second; what is left goes the way sliding would have ended it. */
        public float $slip = 1e-7,
        /** A ball slower than this stands, metres per second: it would run less than a billionth of a millimetre. */
        public float $still = 1e-7,
        /** Spin below this has ended, radians per second. */
        public float $spin = 1e-7,
        /** An approach slower than this is plastic and makes no event, metres per second (docs/physics.md, section 4). */
        public float $slowApproach = 1e-4,
        /** Surfaces that a plastic contact left pressed together are looked at again after this time, seconds. */
        public float $pressed = 1e-3,
        /** While pressed together they stay so up to this approach, metres per second: twice what gravity could give in that time. */
        public float $pressedApproach = 0.02,
        /** Contacts this close in time are one instant: the fastest approach goes first. Seconds. */
        public float $sameInstant = 1e-10,
        /** A group of three and more balls is struck as one (compliant contacts) by an approach from this speed on, metres per second. */
        public float $clusterApproach = 0.02,
        /** Steps of the compliant stage in the time that a contact at the greatest speed lasts. */
        public int $clusterSteps = 80,
        /** Most steps (events and internal changes) of one shot; a break of fifteen frozen balls takes some thousands. */
        public int $maxSteps = 20000,
    ) {
    }
}
