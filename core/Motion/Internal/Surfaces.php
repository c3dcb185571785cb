<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\TableGeometry;
use ZigLane\Core\Table\TableProfile;

/**
 * The table as the engine sees it: numbered surfaces that a ball can meet. 0 to 3 are the rails head, foot, right, left; of
 * pocket k, 4 + 4k and 5 + 4k are its facings, 6 + 4k and 7 + 4k its nose points.
 *
 * @internal
 */
final readonly class Surfaces
{
    public const RAILS = [Rail::Head, Rail::Foot, Rail::Right, Rail::Left];
    public const POCKETS = [Pocket::HeadRight, Pocket::SideRight, Pocket::FootRight, Pocket::HeadLeft, Pocket::SideLeft, Pocket::FootLeft];

    // The numbers of a pocket; from NOSE to NORMAL two for its first side and two for its second.
    public const NOSE = 0;
    public const FACING_ALONG = 4;
    public const NORMAL = 8;
    public const MOUTH_X = 12;
    public const MOUTH_Y = 13;
    public const AXIS_X = 14;
    public const AXIS_Y = 15;
    public const HOLE_X = 16;
    public const HOLE_Y = 17;
    public const HOLE_RADIUS = 18;
    public const DEPTH = 19;

    // The numbers of surfaces: rails below FACING, then four of each pocket, of which the last two are nose points.
    public const FACING = 4;
    public const NOSE_POINT = 6;

    public float $radius;
    public float $length;
    public float $width;
    /** Distance of a corner's nose points from the corner along the rails. */
    public float $cornerCut;
    /** Half of the side pocket's mouth. */
    public float $sideHalf;

    /**
     * Per pocket: nose points (ax, ay, bx, by), facings' directions (fax, fay, fbx, fby), their normals into the pocket (max, may, mbx,
     * mby), mouth (x, y), axis (x, y), hole (x, y, radius), depth of the plane before the mouth at which the surroundings end. NOSE to
     * DEPTH say where.
     *
     * @var list<array<int, float>>
     */
    public array $pockets;

    public function __construct(TableProfile $table, BallSet $balls)
    {
        $geometry = new TableGeometry($table);
        $this->radius = $balls->radius;
        $this->length = $table->length;
        $this->width = $table->width();
        $this->cornerCut = $table->cornerMouth / \M_SQRT2;
        $this->sideHalf = $table->sideMouth / 2;
        $pockets = [];
        foreach (self::POCKETS as $name) {
            $pocket = $geometry->at($name);
            $mouth = $pocket->mouth();
            $directions = [];
            $normals = [];
            foreach ([[$pocket->noseA, $pocket->facingEndA], [$pocket->noseB, $pocket->facingEndB]] as [$from, $to]) {
                $reach = $from->distanceTo($to);
                $fx = ($to->x - $from->x) / $reach;
                $fy = ($to->y - $from->y) / $reach;
                $inwards = -$fy * ($mouth->x - $from->x) + $fx * ($mouth->y - $from->y) > 0 ? 1.0 : -1.0;
                array_push($directions, $fx, $fy);
                array_push($normals, -$fy * $inwards, $fx * $inwards);
            }
            $pockets[] = [
                $pocket->noseA->x, $pocket->noseA->y, $pocket->noseB->x, $pocket->noseB->y,
                $directions[0], $directions[1], $directions[2], $directions[3],
                $normals[0], $normals[1], $normals[2], $normals[3],
                $mouth->x, $mouth->y, $pocket->axisX, $pocket->axisY,
                $pocket->hole->x, $pocket->hole->y, $pocket->holeRadius,
                $balls->radius + 0.01,
            ];
        }
        $this->pockets = $pockets;
    }

    /** Whether a spot along a rail (metres) lies on its nose and not in a pocket's mouth. */
    public function isOnNose(int $rail, float $along): bool
    {
        if ($rail < 2) {
            return $along >= $this->cornerCut && $along <= $this->width - $this->cornerCut;
        }

        $aside = $along - 0.5 * $this->length;

        return $along >= $this->cornerCut
            && $along <= $this->length - $this->cornerCut
            && ($aside >= $this->sideHalf || $aside <= -$this->sideHalf);
    }

    /** The pocket that a facing or nose point belongs to, as an index. */
    public static function pocketOf(int $surface): int
    {
        return ($surface >> 2) - 1;
    }

    /** The pocket nearest to a spot, as an index. */
    public function nearestPocket(float $x, float $y): int
    {
        return ($x < 0.25 * $this->length ? 0 : ($x < 0.75 * $this->length ? 1 : 2)) + ($y < 0.5 * $this->width ? 0 : 3);
    }

    /**
     * Horizontal unit vector from a ball's centre towards a facing or nose point, and the gap between them.
     *
     * @return array{float, float, float}
     */
    public function towards(float $x, float $y, int $surface): array
    {
        $pocket = $this->pockets[self::pocketOf($surface)];
        $k = $surface % 4;
        $side = 2 * ($k % 2);
        $dx = $x - $pocket[self::NOSE + $side];
        $dy = $y - $pocket[self::NOSE + $side + 1];
        if ($k < 2) {
            $mx = $pocket[self::NORMAL + $side];
            $my = $pocket[self::NORMAL + $side + 1];

            return [-$mx, -$my, $dx * $mx + $dy * $my - $this->radius];
        }
        $distance = \sqrt($dx * $dx + $dy * $dy);

        return [-$dx / $distance, -$dy / $distance, $distance - $this->radius];
    }

    /**
     * The surfaces that a ball's edge is past, each with the unit vector towards it: rails where their nose is, and in the
     * surroundings of a pocket its noses and facings.
     *
     * @return list<array{int, float, float}>
     */
    public function overlapped(float $x, float $y, int $zone): array
    {
        $radius = $this->radius;
        $found = [];
        if ($x < $radius && $this->isOnNose(0, $y)) {
            $found[] = [0, -1.0, 0.0];
        }
        if ($x > $this->length - $radius && $this->isOnNose(1, $y)) {
            $found[] = [1, 1.0, 0.0];
        }
        if ($y < $radius && $this->isOnNose(2, $x)) {
            $found[] = [2, 0.0, -1.0];
        }
        if ($y > $this->width - $radius && $this->isOnNose(3, $x)) {
            $found[] = [3, 0.0, 1.0];
        }
        for ($k = 0; $zone >= 0 && $k < 4; ++$k) {
            [$nx, $ny, $gap] = $this->towards($x, $y, self::FACING + 4 * $zone + $k);
            $pocket = $this->pockets[$zone];
            $side = 2 * ($k % 2);
            $along = ($x - $pocket[self::NOSE + $side]) * $pocket[self::FACING_ALONG + $side]
                + ($y - $pocket[self::NOSE + $side + 1]) * $pocket[self::FACING_ALONG + $side + 1];
            if ($gap < 0.0 && ($k > 1 || ($gap > -$radius && $along >= 0.0))) {
                $found[] = [self::FACING + 4 * $zone + $k, $nx, $ny];
            }
        }

        return $found;
    }
}
