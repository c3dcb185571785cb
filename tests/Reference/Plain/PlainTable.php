<?php

declare(strict_types=1);

namespace ZigLane\Tests\Reference\Plain;

/**
 * The default table once more, written from the description of the model alone and as plainly as can be: all balls go forward
 * by one small step of time; if two then overlap, or a ball is past a nose, a point or a facing, everything goes back to when
 * that began, the contact acts, and the rest of the step follows. No prediction, no event queue, nothing of the engine's.
 */
final class PlainTable
{
    private const R = 0.028575;
    private const L = 2.54;
    private const W = 1.27;
    private const G = 9.81;
    private const SLIDE = 0.20;
    private const ROLL = 0.010;
    private const STEP = 0.0005;

    /** @var array<int, array{float, float, float, float, float, float, float}> x, y, vx, vy, wx, wy, wz of each ball on the table */
    public array $balls = [];

    /** @var array<int, string> */
    public array $pocketed = [];

    /** @var array<int, list<string>> what each ball met, in order: "b3", "right", "jaw FL" */
    public array $met = [];

    /** @var array<int, float> since when a ball has been over a hole */
    private array $over = [];

    /**
     * Name, hole, axis, hole's radius, jaws as nose point and direction.
     *
     * @var list<array{string, array{float, float}, array{float, float}, float, list<array{float, float, float, float}>}>
     */
    private array $pockets = [];

    /** @var list<array{string, int, float, int, float, float}> name, axis that is bounded, at, sign into the rail, from, to */
    private array $rails = [];

    /** @param array<int, array{float, float}> $spots */
    public function __construct(array $spots)
    {
        foreach ($spots as $i => [$x, $y]) {
            $this->balls[$i] = [$x, $y, 0.0, 0.0, 0.0, 0.0, 0.0];
            $this->met[$i] = [];
        }
        $corner = 0.1143;
        $side = 0.127;
        $cut = $corner / \sqrt(2);
        foreach (['right' => [0.0, -1], 'left' => [self::W, 1]] as $name => [$at, $sign]) {
            $this->rails[] = [$name, 1, $at, $sign, $cut, self::L / 2 - $side / 2];
            $this->rails[] = [$name, 1, $at, $sign, self::L / 2 + $side / 2, self::L - $cut];
        }
        $this->rails[] = ['head', 0, 0.0, -1, $cut, self::W - $cut];
        $this->rails[] = ['foot', 0, self::L, 1, $cut, self::W - $cut];
        foreach (['HR' => [0, 0], 'FR' => [1, 0], 'HL' => [0, 1], 'FL' => [1, 1]] as $name => [$far, $left]) {
            $cx = $far * self::L;
            $cy = $left * self::W;
            $sx = $far ? -1 : 1;
            $sy = $left ? -1 : 1;
            // The facing turns 142 degrees from the rail's nose line, away from the table.
            [$c, $s] = [cos(deg2rad(142)), sin(deg2rad(142))];
            $depth = 0.0381 + $corner / 2;
            $mouth = [$cx + $sx * $cut / 2, $cy + $sy * $cut / 2];
            $axis = [-$sx / \sqrt(2), -$sy / \sqrt(2)];
            $this->pockets[] = [$name, [$mouth[0] + $depth * $axis[0], $mouth[1] + $depth * $axis[1]], $axis, $corner / 2, [
                [$cx + $sx * $cut, $cy, $sx * $c, -$sy * $s],
                [$cx, $cy + $sy * $cut, -$sx * $s, $sy * $c],
            ]];
        }
        foreach (['SR' => [0.0, -1], 'SL' => [self::W, 1]] as $name => [$cy, $out]) {
            [$c, $s] = [cos(deg2rad(104)), sin(deg2rad(104))];
            $depth = 0.0048 + $side / 2;
            $this->pockets[] = [$name, [self::L / 2, $cy + $out * $depth], [0.0, (float) $out], $side / 2, [
                [self::L / 2 - $side / 2, $cy, -$c, $out * $s],
                [self::L / 2 + $side / 2, $cy, $c, $out * $s],
            ]];
        }
    }

    /** @param array{float, float, float, float, float} $motion vx, vy, wx, wy, wz */
    public function let(int $ball, array $motion): void
    {
        [$x, $y] = $this->balls[$ball];
        $this->balls[$ball] = [$x, $y, ...$motion];
    }

    /** Runs until all stand; 60 s at most. */
    public function run(): void
    {
        for ($time = 0.0; $time < 60.0 && $this->anyMoves(); $time += self::STEP) {
            $left = self::STEP;
            for ($contacts = 0; $left > 0.0 && $contacts < 50; ++$contacts) {
                $before = $this->balls;
                $this->forward($left);
                $back = $this->deepest($left);
                if (null === $back) {
                    break;
                }
                [$since, $contact] = $back;
                $this->balls = $before;
                $this->forward($left - $since);
                $contact();
                $left = $since;
            }
            $this->drop($time);
        }
    }

    private function anyMoves(): bool
    {
        foreach ($this->balls as [, , $vx, $vy, $wx, $wy]) {
            if (0.0 !== $vx || 0.0 !== $vy || 0.0 !== $wx || 0.0 !== $wy) {
                return true;
            }
        }

        return false;
    }

    private function forward(float $dt): void
    {
        $r = self::R;
        foreach ($this->balls as $i => $ball) {
            [$x, $y, $vx, $vy, $wx, $wy, $wz] = $ball;
            if (0.0 === $vx && 0.0 === $vy && 0.0 === $wx && 0.0 === $wy) {
                if (0.0 !== $wz) {
                    $this->balls[$i][6] = abs($wz) < 10.0 * $dt ? 0.0 : $wz - 10.0 * $dt * ($wz <=> 0.0);
                }
                continue;
            }
            $ux = $vx - $r * $wy;
            $uy = $vy + $r * $wx;
            $slip = \sqrt($ux * $ux + $uy * $uy);
            $kick = self::SLIDE * self::G * $dt;
            // A ball slides for the part of the step that its slip lasts, and rolls for the rest.
            $share = $slip > 3.5 * $kick ? 1.0 : $slip / (3.5 * $kick);
            if ($slip > 1e-12) {
                $ax = -self::SLIDE * self::G * $ux / $slip;
                $ay = -self::SLIDE * self::G * $uy / $slip;
                $s = $share * $dt;
                $x += $s * ($vx + 0.5 * $s * $ax);
                $y += $s * ($vy + 0.5 * $s * $ay);
                $vx += $s * $ax;
                $vy += $s * $ay;
                $wx += 2.5 / $r * $s * $ay;
                $wy -= 2.5 / $r * $s * $ax;
            } else {
                $share = 0.0;
            }
            if ($share < 1.0) {
                $s = (1 - $share) * $dt;
                $speed = \sqrt($vx * $vx + $vy * $vy);
                $brake = self::ROLL * self::G;
                if ($speed <= $brake * $s) {
                    $s = $speed / $brake;
                    $x += 0.5 * $s * $vx;
                    $y += 0.5 * $s * $vy;
                    $vx = $vy = $wx = $wy = 0.0;
                } else {
                    $keep = 1 - 0.5 * $s * $brake / $speed;
                    $x += $s * $vx * $keep;
                    $y += $s * $vy * $keep;
                    $keep = 1 - $s * $brake / $speed;
                    $vx *= $keep;
                    $vy *= $keep;
                    $wx = -$vy / $r;
                    $wy = $vx / $r;
                }
            }
            $wz = abs($wz) < 10.0 * $dt ? 0.0 : $wz - 10.0 * $dt * ($wz <=> 0.0);
            $this->balls[$i] = [$x, $y, $vx, $vy, $wx, $wy, $wz];
        }
    }

    /**
     * The overlap that began first in the last step: how long ago, and what to do about it.
     *
     * @return array{float, \Closure(): void}|null
     */
    private function deepest(float $step): ?array
    {
        $first = 0.0;
        $contact = null;
        foreach ($this->balls as $i => [$x, $y, $vx, $vy]) {
            if (0.0 === $vx && 0.0 === $vy) {
                continue;
            }
            foreach ($this->balls as $j => $other) {
                $dx = $other[0] - $x;
                if ($j === $i || $dx > 2 * self::R || $dx < -2 * self::R) {
                    continue;
                }
                $dy = $other[1] - $y;
                if ($dx * $dx + $dy * $dy >= 4 * self::R * self::R) {
                    continue;
                }
                [, , $ovx, $ovy] = $other;
                $rx = $ovx - $vx;
                $ry = $ovy - $vy;
                if ($dx * $rx + $dy * $ry >= 0.0) {
                    continue;
                }
                // Straight back in time to where the distance was two radii.
                $a = $rx * $rx + $ry * $ry;
                $b = $dx * $rx + $dy * $ry;
                $since = ($b + \sqrt($b * $b - $a * ($dx * $dx + $dy * $dy - 4 * self::R * self::R))) / $a;
                if ($since > $first) {
                    $first = $since;
                    $contact = fn () => $this->meet(min($i, $j), max($i, $j));
                }
            }
            foreach ($this->walls($x, $y) as [$name, $nx, $ny, $depth]) {
                $approach = $vx * $nx + $vy * $ny;
                if ($approach > 0.0 && $depth / $approach > $first) {
                    $first = $depth / $approach;
                    $contact = fn () => $this->bounce($i, $name, $nx, $ny);
                }
            }
        }

        return null === $contact ? null : [min($first, $step), $contact];
    }

    /** @return list<array{string, float, float, float}> what a ball at this place is past: name, direction towards it, how deep */
    private function walls(float $x, float $y): array
    {
        $r = self::R;
        if ($x >= $r && $x <= self::L - $r && $y >= $r && $y <= self::W - $r) {
            return [];
        }
        $found = [];
        foreach ($this->rails as [$name, $axis, $at, $sign, $from, $to]) {
            $across = 0 === $axis ? $x : $y;
            $along = 0 === $axis ? $y : $x;
            $depth = $r - $sign * ($at - $across);
            // Deeper than a step can bring it, it is behind the nose: met by its points instead.
            if ($depth > 0.0 && $depth < 0.01 && $along >= $from && $along <= $to) {
                $found[] = [$name, 0 === $axis ? (float) $sign : 0.0, 1 === $axis ? (float) $sign : 0.0, $depth];
            }
        }
        foreach ($this->pockets as [$name, , , , $jaws]) {
            foreach ($jaws as [$nx, $ny, $fx, $fy]) {
                $dx = $x - $nx;
                $dy = $y - $ny;
                if (abs($dx) > 0.25 || abs($dy) > 0.25) {
                    continue;
                }
                $along = $dx * $fx + $dy * $fy;
                $distance = \sqrt($dx * $dx + $dy * $dy);
                if ($along < 0.0) {
                    if ($distance < $r && $distance > 0.0) {
                        $found[] = ["jaw $name", -$dx / $distance, -$dy / $distance, $r - $distance];
                    }
                    continue;
                }
                $across = $dx * -$fy + $dy * $fx;
                if (abs($across) < $r) {
                    $sign = $across < 0.0 ? 1.0 : -1.0;
                    $found[] = ["jaw $name", $sign * -$fy, $sign * $fx, $r - abs($across)];
                }
            }
        }

        return $found;
    }

    private function bounce(int $i, string $name, float $nx, float $ny): void
    {
        [$x, $y, $vx, $vy, $wx, $wy, $wz] = $this->balls[$i];
        // Frame of the cushion: x along it, y into it.
        $tx = $ny;
        $ty = -$nx;
        [$a, $b, $p, $q, $r] = PlainCushion::rebound(
            [$vx * $tx + $vy * $ty, $vx * $nx + $vy * $ny],
            [$wx * $tx + $wy * $ty, $wx * $nx + $wy * $ny, $wz],
            1500,
        );
        $this->balls[$i] = [$x, $y, $a * $tx + $b * $nx, $a * $ty + $b * $ny, $p * $tx + $q * $nx, $p * $ty + $q * $ny, $r];
        $this->met[$i][] = $name;
    }

    private function meet(int $i, int $j): void
    {
        [$ax, $ay, $avx, $avy, $awx, $awy, $awz] = $this->balls[$i];
        [$bx, $by, $bvx, $bvy, $bwx, $bwy, $bwz] = $this->balls[$j];
        $d = hypot($bx - $ax, $by - $ay);
        $n = [($bx - $ax) / $d, ($by - $ay) / $d, 0.0];
        $normal = 0.5 * (1 + 0.97) * (($avx - $bvx) * $n[0] + ($avy - $bvy) * $n[1]);
        // s = (vA + wA x R n) - (vB - wB x R n), less its part along n.
        $w = [$awx + $bwx, $awy + $bwy, $awz + $bwz];
        $s = [
            $avx - $bvx + self::R * ($w[1] * $n[2] - $w[2] * $n[1]),
            $avy - $bvy + self::R * ($w[2] * $n[0] - $w[0] * $n[2]),
            self::R * ($w[0] * $n[1] - $w[1] * $n[0]),
        ];
        $along = $s[0] * $n[0] + $s[1] * $n[1];
        $t = [$s[0] - $along * $n[0], $s[1] - $along * $n[1], $s[2]];
        $slip = \sqrt($t[0] ** 2 + $t[1] ** 2 + $t[2] ** 2);
        $f = [0.0, 0.0, 0.0];
        if ($slip > 0.0) {
            $size = min((0.00995 + 0.108 * exp(-1.088 * $slip)) * $normal, $slip / 7);
            $f = [-$size * $t[0] / $slip, -$size * $t[1] / $slip, -$size * $t[2] / $slip];
        }
        $k = 2.5 / self::R;
        $turn = [$k * ($n[1] * $f[2] - $n[2] * $f[1]), $k * ($n[2] * $f[0] - $n[0] * $f[2]), $k * ($n[0] * $f[1] - $n[1] * $f[0])];
        $jx = -$normal * $n[0] + $f[0];
        $jy = -$normal * $n[1] + $f[1];
        $this->balls[$i] = [$ax, $ay, $avx + $jx, $avy + $jy, $awx + $turn[0], $awy + $turn[1], $awz + $turn[2]];
        $this->balls[$j] = [$bx, $by, $bvx - $jx, $bvy - $jy, $bwx + $turn[0], $bwy + $turn[1], $bwz + $turn[2]];
        $this->met[$i][] = "b$j";
        $this->met[$j][] = "b$i";
    }

    private function drop(float $time): void
    {
        foreach ($this->balls as $i => [$x, $y]) {
            if ($x > 0.13 && $x < self::L - 0.13 && $y > 0.06 && $y < self::W - 0.06) {
                continue;
            }
            $isOver = false;
            foreach ($this->pockets as [$name, $hole, $axis, $radius]) {
                $beyond = ($x - $hole[0]) * $axis[0] + ($y - $hole[1]) * $axis[1];
                if (hypot($x - $hole[0], $y - $hole[1]) < $radius) {
                    $isOver = true;
                    $this->over[$i] ??= $time;
                    if ($time - $this->over[$i] >= 0.040 || $beyond >= 0.0) {
                        $this->pocketed[$i] = $name;
                    }
                } elseif ($beyond >= 0.0 && hypot($x - $hole[0], $y - $hole[1]) < 0.15) {
                    $this->pocketed[$i] = $name;
                }
            }
            if (!$isOver) {
                unset($this->over[$i]);
            }
            if (isset($this->pocketed[$i])) {
                unset($this->balls[$i]);
            }
        }
    }
}
