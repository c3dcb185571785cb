<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Table\BallSet;

/**
 * Two balls that meet: an instant impulse with restitution along the line of centres and friction across it. Throw by cut and
 * by spin, transfer of spin and gearing all follow. Friction fitted to data in Marlow, The Physics of Pocket Billiards (1995).
 */
final readonly class BallContact
{
    public function __construct(private BallSet $balls)
    {
    }

    /**
     * Impulses per unit of mass on ball A; ball B receives the opposite, and both spins change alike. Of equal balls; where one is a cue
     * ball of another weight, all changes of a ball are in the same ratio to these (BallSet::takenByCueBall, takenFromCueBall): the
     * impulses of restitution, of friction and of the grip that ends a slip all go by the reduced mass.
     *
     * @param float $nx unit vector from A to B, with $ny
     *
     * @return array{float, float, float, float, float} change of A's vx, vy (m/s) and of both balls' wx, wy, wz (rad/s)
     */
    public function impulse(float $nx, float $ny, float $dvx, float $dvy, float $swx, float $swy, float $swz): array
    {
        $radius = $this->balls->radius;
        $normal = 0.5 * (1 + $this->balls->restitution) * ($dvx * $nx + $dvy * $ny);
        // Slip of A's surface against B's: across the line of centres in the plane, and upwards.
        $across = -$dvx * $ny + $dvy * $nx + $radius * $swz;
        $up = $radius * ($swx * $ny - $swy * $nx);
        $slip = hypot($across, $up);
        if ($slip < 1e-15) {
            return [-$normal * $nx, -$normal * $ny, 0.0, 0.0, 0.0];
        }
        $friction = $this->balls->friction($slip) * $normal / $slip;
        if ($friction > 1 / 7) {
            $friction = 1 / 7;
        }
        $fAcross = $friction * $across;
        $fUp = $friction * $up;
        $turn = 2.5 / $radius;

        return [
            -$normal * $nx + $fAcross * $ny,
            -$normal * $ny - $fAcross * $nx,
            -$turn * $fUp * $ny,
            $turn * $fUp * $nx,
            -$turn * $fAcross,
        ];
    }
}
