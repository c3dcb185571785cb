<?php

declare(strict_types=1);

namespace ZigLane\Core\Camera;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;

/**
 * A table with its balls as a camera sees it: the simulated stand-in for a photograph. Perspective, light that falls off, shadows, noise of
 * the lens; balls turned at random with their stripes and number discs.
 *
 * Cost: about a second for 960 by 540 pixels.
 */
final readonly class Scene
{
    private const FLOOR = [52.0, 46.0, 44.0];
    private const WOOD = [86.0, 52.0, 30.0];
    private const HOLE = [12.0, 12.0, 13.0];
    /**
     * Width of the cushions and of the wood behind them, metres; cosine from a pole up to which the number's disc reaches; half a stripe.
     */
    private const CUSHION = 0.05;
    private const RAIL = 0.15;
    private const DISC = 0.93;
    private const STRIPE = 0.56;

    /**
     * @param array{float, float, float} $cloth colour, 0 to 255
     * @param array{float, float, float} $light where the lamp is, metres
     * @param float                      $noise standard deviation of a pixel's brightness, 0 to 255
     */
    public function __construct(
        private Equipment $equipment,
        private Layout $layout,
        private View $view,
        private array $cloth = [38.0, 110.0, 118.0],
        private array $light = [1.27, 0.6, 1.6],
        private float $noise = 3.0,
    ) {
    }

    public function image(int $seed = 1): \GdImage
    {
        $view = $this->view;
        $image = imagecreatetruecolor(max(1, $view->width), max(1, $view->height));
        $random = new Randomness($seed);
        $grain = [];
        for ($i = 0; $i < 4096; ++$i) {
            $grain[] = $this->noise * $random->normal();
        }
        $g = 0;
        $table = $this->equipment->table;
        [$length, $width] = [$table->length, $table->width()];
        $holes = array_map(
            static fn ($pocket): array => [$pocket->hole->x, $pocket->hole->y, $pocket->holeRadius ** 2],
            array_values($this->equipment->geometry->pockets),
        );
        $balls = $this->balls($random);
        $radius = $this->equipment->balls->radius;
        [$cx, $cy, $cz] = $view->at;
        for ($py = 0; $py < $view->height; ++$py) {
            for ($px = 0; $px < $view->width; ++$px) {
                [$dx, $dy, $dz] = $view->ray($px + 0.5, $py + 0.5);
                $colour = self::FLOOR;
                $shade = 0.7;
                if ($dz < -1e-3) {
                    $t = -$cz / $dz;
                    $x = $cx + $t * $dx;
                    $y = $cy + $t * $dy;
                    $beyond = max(-$x, $x - $length, -$y, $y - $width);
                    if ($beyond < self::RAIL) {
                        $colour = $beyond < self::CUSHION ? $this->cloth : self::WOOD;
                        $away = ($x - $this->light[0]) ** 2 + ($y - $this->light[1]) ** 2;
                        $shade = 1.06 / (1 + 0.16 * $away) * ($beyond > 0.0 ? 0.86 : 1.0);
                        foreach ($holes as [$hx, $hy, $square]) {
                            if (($x - $hx) ** 2 + ($y - $hy) ** 2 < $square) {
                                $colour = self::HOLE;
                            }
                        }
                        foreach ($balls as [$bx, $by]) {
                            // Shadow: away from the lamp, soft at its edge.
                            $sx = $x - $bx - 0.35 * $radius * ($bx - $this->light[0]);
                            $sy = $y - $by - 0.35 * $radius * ($by - $this->light[1]);
                            $near = ($sx * $sx + $sy * $sy) / ($radius * $radius);
                            $shade *= $near < 1.5 ? 0.55 + 0.3 * $near : 1.0;
                        }
                    }
                }
                $g = ($g + 1 + ($px & 3)) & 4095;
                imagesetpixel($image, $px, $py, self::colour($colour, $shade, $grain[$g]));
            }
        }
        foreach ($balls as $ball) {
            $this->drawn($image, $ball, $grain);
        }

        return $image;
    }

    /**
     * @return list<array{float, float, Ball, array{float, float, float}}> the farthest from the camera first, each with the axis of its
     *                                                                     stripe
     */
    private function balls(Randomness $random): array
    {
        $balls = [];
        foreach ($this->layout->balls() as $ball) {
            $spot = $this->layout->spot($ball);
            $z = 2 * $random->share() - 1;
            $angle = 2 * \M_PI * $random->share();
            $flat = \sqrt(1 - $z * $z);
            $balls[] = [$spot->x, $spot->y, $ball, [$flat * cos($angle), $flat * sin($angle), $z]];
        }
        [$x, $y] = $this->view->at;
        usort($balls, static fn (array $a, array $b): int => hypot($b[0] - $x, $b[1] - $y) <=> hypot($a[0] - $x, $a[1] - $y));

        return $balls;
    }

    /**
     * @param array{float, float, Ball, array{float, float, float}} $one
     * @param list<float>                                           $grain
     */
    private function drawn(\GdImage $image, array $one, array $grain): void
    {
        [$bx, $by, $ball, $axis] = $one;
        $radius = $this->equipment->balls->radius;
        $view = $this->view;
        [$px, $py] = $view->pixel($bx, $by, $radius);
        $distance = \sqrt(($bx - $view->at[0]) ** 2 + ($by - $view->at[1]) ** 2 + ($radius - $view->at[2]) ** 2);
        $reach = (int) ceil(1.3 * $view->focal * $radius / $distance) + 2;
        $main = BallColours::of($ball);
        $g = (int) (1000 * abs($bx));
        for ($y = (int) $py - $reach; $y <= $py + $reach; ++$y) {
            for ($x = (int) $px - $reach; $x <= $px + $reach; ++$x) {
                if ($x < 0 || $y < 0 || $x >= $view->width || $y >= $view->height) {
                    continue;
                }
                [$dx, $dy, $dz] = $view->ray($x + 0.5, $y + 0.5);
                [$ox, $oy, $oz] = [$view->at[0] - $bx, $view->at[1] - $by, $view->at[2] - $radius];
                $half = $ox * $dx + $oy * $dy + $oz * $dz;
                $below = $half * $half - ($ox * $ox + $oy * $oy + $oz * $oz - $radius * $radius);
                if ($below < 0.0) {
                    continue;
                }
                $t = -$half - \sqrt($below);
                [$nx, $ny, $nz] = [($ox + $t * $dx) / $radius, ($oy + $t * $dy) / $radius, ($oz + $t * $dz) / $radius];
                [$lx, $ly, $lz] = [$this->light[0] - $bx, $this->light[1] - $by, $this->light[2]];
                $size = \sqrt($lx * $lx + $ly * $ly + $lz * $lz);
                $lit = max(0.0, ($nx * $lx + $ny * $ly + $nz * $lz) / $size);
                $mirrored = 2 * ($nx * $lx + $ny * $ly + $nz * $lz) / $size;
                $shine = max(0.0, -($mirrored * $nx - $lx / $size) * $dx - ($mirrored * $ny - $ly / $size) * $dy
                    - ($mirrored * $nz - $lz / $size) * $dz) ** 60;
                $pole = $nx * $axis[0] + $ny * $axis[1] + $nz * $axis[2];
                $isWhite = match (true) {
                    Ball::Cue === $ball => true,
                    abs($pole) > self::DISC && $ball->value <= 8 => true,
                    $ball->value > 8 => abs($pole) > self::STRIPE,
                    default => false,
                };
                $colour = $isWhite ? BallColours::WHITE : $main;
                $away = $lx * $lx + $ly * $ly;
                $shade = (0.42 + 0.62 * $lit) / (1 + 0.16 * $away);
                imagesetpixel($image, $x, $y, self::colour($colour, $shade, $grain[++$g & 4095] + 190 * $shine));
            }
        }
    }

    /** @param array{float, float, float} $colour */
    private static function colour(array $colour, float $shade, float $more): int
    {
        $r = (int) max(0, min(255, $shade * $colour[0] + $more));
        $g = (int) max(0, min(255, $shade * $colour[1] + $more));
        $b = (int) max(0, min(255, $shade * $colour[2] + $more));

        return ($r << 16) | ($g << 8) | $b;
    }
}
