<?php

declare(strict_types=1);

namespace ZigLane\Core\Camera;

use ZigLane\Core\Math\Matrix;

/**
 * A pinhole camera over a table: where it stands, and where a point is in its picture. Points in metres, x and y as on the table, z up;
 * pixels from the upper left corner, the optical axis through the middle of the picture, square pixels.
 */
final readonly class View
{
    /**
     * @param array{float, float, float}                                                                $at    where the camera is
     * @param array{array{float, float, float}, array{float, float, float}, array{float, float, float}} $axes  right, down and ahead as it
     *                                                                                                         looks
     * @param float                                                                                     $focal pixels
     */
    public function __construct(public array $at, public array $axes, public float $focal, public int $width, public int $height)
    {
    }

    /**
     * @param array{float, float, float} $at
     * @param array{float, float, float} $towards a point that it looks at
     * @param float                      $focal   pixels
     */
    public static function looking(array $at, array $towards, float $focal, int $width, int $height, float $roll = 0.0): self
    {
        $ahead = self::unit([$towards[0] - $at[0], $towards[1] - $at[1], $towards[2] - $at[2]]);
        $right = self::unit(self::cross($ahead, [0.0, 0.0, 1.0]));
        $down = self::cross($ahead, $right);
        [$c, $s] = [cos($roll), sin($roll)];
        $turned = [
            [$c * $right[0] + $s * $down[0], $c * $right[1] + $s * $down[1], $c * $right[2] + $s * $down[2]],
            [$c * $down[0] - $s * $right[0], $c * $down[1] - $s * $right[1], $c * $down[2] - $s * $right[2]],
        ];

        return new self($at, [$turned[0], $turned[1], $ahead], $focal, $width, $height);
    }

    /** @return array{float, float} pixels */
    public function pixel(float $x, float $y, float $z): array
    {
        [$right, $down, $ahead] = $this->axes;
        [$dx, $dy, $dz] = [$x - $this->at[0], $y - $this->at[1], $z - $this->at[2]];
        $depth = $dx * $ahead[0] + $dy * $ahead[1] + $dz * $ahead[2];
        $scale = $this->focal / max(1e-6, $depth);

        return [
            0.5 * $this->width + $scale * ($dx * $right[0] + $dy * $right[1] + $dz * $right[2]),
            0.5 * $this->height + $scale * ($dx * $down[0] + $dy * $down[1] + $dz * $down[2]),
        ];
    }

    /** @return array{float, float, float} direction of the ray through a pixel, of length 1 */
    public function ray(float $px, float $py): array
    {
        [$right, $down, $ahead] = $this->axes;
        $a = ($px - 0.5 * $this->width) / $this->focal;
        $b = ($py - 0.5 * $this->height) / $this->focal;

        return self::unit([
            $ahead[0] + $a * $right[0] + $b * $down[0],
            $ahead[1] + $a * $right[1] + $b * $down[1],
            $ahead[2] + $a * $right[2] + $b * $down[2],
        ]);
    }

    /**
     * The view that shows four points of the table's plane at four pixels; null where no camera does.
     *
     * @param list<array{float, float}> $points metres
     * @param list<array{float, float}> $pixels
     */
    public static function ofFour(array $points, array $pixels, int $width, int $height): ?self
    {
        $h = self::homography($points, array_map(
            static fn (array $at): array => [$at[0] - 0.5 * $width, $at[1] - 0.5 * $height],
            $pixels,
        ));
        if (null === $h) {
            return null;
        }
        [[$a1, $b1, $c1], [$a2, $b2, $c2], [$a3, $b3, $c3]] = $h;
        // The images of two directions that are square and of one length tell the focal length (Zhang, 2000).
        $square = [];
        if (abs($a3 * $b3) > 1e-9) {
            $square[] = [-($a1 * $b1 + $a2 * $b2) / ($a3 * $b3), abs($a3 * $b3)];
        }
        $below = $a3 * $a3 - $b3 * $b3;
        if (abs($below) > 1e-9) {
            $square[] = [($b1 * $b1 + $b2 * $b2 - $a1 * $a1 - $a2 * $a2) / $below, abs($below)];
        }
        $square = array_filter($square, static fn (array $one): bool => $one[0] > (0.2 * $width) ** 2 && $one[0] < (20.0 * $width) ** 2);
        if ([] === $square) {
            return null;
        }
        $weights = array_sum(array_column($square, 1));
        $focal = \sqrt(array_sum(array_map(static fn (array $one): float => $one[0] * $one[1], $square)) / $weights);
        $scale = 1 / \sqrt(($a1 * $a1 + $a2 * $a2) / $focal ** 2 + $a3 * $a3);
        $scale = $c3 < 0.0 ? -$scale : $scale;
        $r1 = self::unit([$scale * $a1 / $focal, $scale * $a2 / $focal, $scale * $a3]);
        $r2 = [$scale * $b1 / $focal, $scale * $b2 / $focal, $scale * $b3];
        $dot = $r1[0] * $r2[0] + $r1[1] * $r2[1] + $r1[2] * $r2[2];
        $r2 = self::unit([$r2[0] - $dot * $r1[0], $r2[1] - $dot * $r1[1], $r2[2] - $dot * $r1[2]]);
        $r3 = self::cross($r1, $r2);
        $t = [$scale * $c1 / $focal, $scale * $c2 / $focal, $scale * $c3];
        // Columns r1, r2, r3 turn the table's axes into the camera's; its rows are the camera's axes in the table's.
        $at = [];
        foreach ([$r1, $r2, $r3] as $column) {
            $at[] = -($column[0] * $t[0] + $column[1] * $t[1] + $column[2] * $t[2]);
        }
        $axes = [];
        for ($i = 0; $i < 3; ++$i) {
            $axes[] = [$r1[$i], $r2[$i], $r3[$i]];
        }

        // Pixels grow downwards and z upwards: the camera must be above the cloth, or the table is seen in a mirror.
        return $at[2] < 0.0 ? null : new self([$at[0], $at[1], $at[2]], [$axes[0], $axes[1], $axes[2]], $focal, $width, $height);
    }

    /**
     * The projective map of a plane that four points have; null where three lie on a line.
     *
     * @param list<array{float, float}> $from
     * @param list<array{float, float}> $to
     *
     * @return array{array{float, float, float}, array{float, float, float}, array{float, float, float}}|null
     */
    private static function homography(array $from, array $to): ?array
    {
        $rows = $right = [];
        foreach ($from as $i => [$x, $y]) {
            [$u, $v] = $to[$i];
            $rows[] = [$x, $y, 1.0, 0.0, 0.0, 0.0, -$u * $x, -$u * $y];
            $right[] = $u;
            $rows[] = [0.0, 0.0, 0.0, $x, $y, 1.0, -$v * $x, -$v * $y];
            $right[] = $v;
        }
        $h = Matrix::solved($rows, $right);
        foreach ($h as $value) {
            if (!is_finite($value)) {
                return null;
            }
        }
        foreach ($from as $i => [$x, $y]) {
            $depth = $h[6] * $x + $h[7] * $y + 1.0;
            $depth = abs($depth) < 1e-9 ? 1e-9 : $depth;
            $off = [($h[0] * $x + $h[1] * $y + $h[2]) / $depth - $to[$i][0], ($h[3] * $x + $h[4] * $y + $h[5]) / $depth - $to[$i][1]];
            if (hypot(...$off) > 0.5) {
                return null;
            }
        }

        return [[$h[0], $h[1], $h[2]], [$h[3], $h[4], $h[5]], [$h[6], $h[7], 1.0]];
    }

    /**
     * @param array{float, float, float} $v
     *
     * @return array{float, float, float}
     */
    private static function unit(array $v): array
    {
        $length = \sqrt($v[0] ** 2 + $v[1] ** 2 + $v[2] ** 2) ?: 1.0;

        return [$v[0] / $length, $v[1] / $length, $v[2] / $length];
    }

    /**
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     *
     * @return array{float, float, float}
     */
    private static function cross(array $a, array $b): array
    {
        return [$a[1] * $b[2] - $a[2] * $b[1], $a[2] * $b[0] - $a[0] * $b[2], $a[0] * $b[1] - $a[1] * $b[0]];
    }
}
