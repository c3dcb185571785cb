<?php

declare(strict_types=1);

namespace ZigLane\Core\Camera;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\PocketGeometry;
use ZigLane\Core\Table\Spot;

/**
 * Finds balls and their numbers in a picture of a table of which the four corner pockets are known. The view is found from these (View),
 * the picture is laid flat at the height of the balls' centres, what differs from the cloth is taken apart into balls as large as they
 * must be there, and each is named by its colour and how much white it shows; two balls are never given one name.
 *
 * Cost: about half a second.
 */
final class Finder
{
    /** The corners, in the order in which they are pointed at. */
    public const CORNERS = [Pocket::HeadRight, Pocket::FootRight, Pocket::FootLeft, Pocket::HeadLeft];
    /** Width of a cell of the flat picture, metres. */
    private const CELL = 0.004;
    /** Tiles along and across the table, of each of which the cloth's own brightness is taken. */
    private const TILES = [8, 4];
    /** Of the cloth's colour, its shares of red and green times 255; brighter and darker than the cloth. */
    private const APART = 13.0;
    private const BRIGHT = 1.3;
    private const DARK = 0.34;
    /** Share of a ball's outline that must differ from the cloth. */
    private const COVERED = 0.62;
    /** What is dark within so many radii of a hole is the hole. */
    private const HOLE = 1.2;
    /** A ball with so much beside it touches another: then its middle is that of the outline. */
    private const BESIDE = 0.15;
    /** White is known from so many cells, at this share of them by brightness; and how bright a ball is on the whole beside that. */
    private const WHITES = 40;
    private const WHITE_AT = 0.7;
    private const SHADED = 0.74;
    /** A pocket is looked for so far about a tap, as a share of the picture's width. */
    private const ABOUT_TAP = 0.03;

    private int $across;
    private int $down;

    /** @var array<int, array{int, int, int}> by cell */
    private array $cells = [];

    /** @var array<int, true> cells that differ from the cloth */
    private array $mask = [];

    /** @var array<int, float> brightness of the cloth, by tile */
    private array $light = [];
    /** Of the whole cloth, and how bright white is there, 0 to 255. */
    private float $usual = 300.0;
    private float $white = 200.0;

    private function __construct(private readonly View $view, private readonly Equipment $equipment)
    {
        $this->across = (int) ceil($equipment->table->length / self::CELL);
        $this->down = (int) ceil($equipment->table->width() / self::CELL);
    }

    /**
     * @param list<array{float, float}> $taps pixels at the four corner pockets, in the order of CORNERS
     *
     * @return list<SeenBall>|null null where these four cannot be the corners of a table
     */
    public static function find(\GdImage $image, array $taps, Equipment $equipment): ?array
    {
        $points = self::corners($equipment);
        $pixels = array_map(static fn (array $tap): array => self::pocketAt($image, $tap), $taps);
        $view = 4 === \count($pixels) ? View::ofFour($points, $pixels, imagesx($image), imagesy($image)) : null;
        if (null === $view) {
            return null;
        }
        $finder = new self($view, $equipment);
        $finder->flatten($image);

        return $finder->named($finder->outlines());
    }

    /** @return list<array{float, float}> the middles of the corner pockets, metres, in the order of CORNERS */
    private static function corners(Equipment $equipment): array
    {
        return array_map(static function (Pocket $pocket) use ($equipment): array {
            $hole = $equipment->geometry->at($pocket)->hole;

            return [$hole->x, $hole->y];
        }, self::CORNERS);
    }

    /** @return array<string, array{float, float}> where a view has them, pixels, by pocket */
    public static function cornersIn(View $view, Equipment $equipment): array
    {
        $corners = [];
        foreach (self::corners($equipment) as $i => [$x, $y]) {
            $corners[self::CORNERS[$i]->value] = $view->pixel($x, $y, 0.0);
        }

        return $corners;
    }

    /**
     * The middle of the dark that a tap lies in; the tap itself where it lies in none.
     *
     * @param array{float, float} $tap
     *
     * @return array{float, float}
     */
    private static function pocketAt(\GdImage $image, array $tap): array
    {
        [$width, $height] = [imagesx($image), imagesy($image)];
        $reach = (int) max(4, self::ABOUT_TAP * $width);
        $brightness = static function (int $x, int $y) use ($image): int {
            $colour = (int) imagecolorat($image, $x, $y);

            return (($colour >> 16) & 255) + (($colour >> 8) & 255) + ($colour & 255);
        };
        $darkest = [766, 0, 0];
        for ($y = (int) $tap[1] - 8; $y <= $tap[1] + 8; $y += 2) {
            for ($x = (int) $tap[0] - 8; $x <= $tap[0] + 8; $x += 2) {
                if ($x >= 0 && $y >= 0 && $x < $width && $y < $height && $brightness($x, $y) < $darkest[0]) {
                    $darkest = [$brightness($x, $y), $x, $y];
                }
            }
        }
        if ($darkest[0] > 120) {
            return $tap;
        }
        $limit = max(75, $darkest[0] + 40);
        $queue = [[$darkest[1], $darkest[2]]];
        $seen = [$darkest[2] * $width + $darkest[1] => true];
        $sumX = $sumY = 0;
        for ($i = 0; $i < \count($queue); ++$i) {
            [$x, $y] = $queue[$i];
            $sumX += $x;
            $sumY += $y;
            foreach ([[1, 0], [-1, 0], [0, 1], [0, -1]] as [$dx, $dy]) {
                [$nx, $ny] = [$x + $dx, $y + $dy];
                $key = $ny * $width + $nx;
                if (
                    !isset($seen[$key]) && $nx >= 0 && $ny >= 0 && $nx < $width && $ny < $height
                    && abs($nx - $tap[0]) <= $reach && abs($ny - $tap[1]) <= $reach && $brightness($nx, $ny) < $limit
                ) {
                    $seen[$key] = true;
                    $queue[] = [$nx, $ny];
                }
            }
        }

        return \count($queue) < 12 ? $tap : [$sumX / \count($queue) + 0.5, $sumY / \count($queue) + 0.5];
    }

    /** Lays the picture flat at the height of the balls' centres and marks what differs from the cloth. */
    private function flatten(\GdImage $image): void
    {
        $radius = $this->equipment->balls->radius;
        [$width, $height] = [imagesx($image), imagesy($image)];
        $tiles = [];
        $chromas = [[], []];
        for ($j = 0; $j < $this->down; ++$j) {
            for ($i = 0; $i < $this->across; ++$i) {
                [$px, $py] = $this->view->pixel(($i + 0.5) * self::CELL, ($j + 0.5) * self::CELL, $radius);
                $x = (int) $px;
                $y = (int) $py;
                if ($x < 0 || $y < 0 || $x >= $width || $y >= $height) {
                    continue;
                }
                $colour = (int) imagecolorat($image, $x, $y);
                $r = ($colour >> 16) & 255;
                $g = ($colour >> 8) & 255;
                $b = $colour & 255;
                $this->cells[$j * $this->across + $i] = [$r, $g, $b];
                if (0 === ($i & 3) && 0 === ($j & 3)) {
                    $sum = $r + $g + $b;
                    $tiles[$this->tile($i, $j)][] = $sum;
                    if ($sum > 30) {
                        $chromas[0][] = 255 * $r / $sum;
                        $chromas[1][] = 255 * $g / $sum;
                    }
                }
            }
        }
        $this->light = array_map(self::median(...), $tiles);
        $this->usual = self::median(array_values($this->light));
        [$red, $green] = [self::median($chromas[0]), self::median($chromas[1])];
        $holes = array_map(
            static fn (PocketGeometry $pocket): array => [$pocket->hole->x, $pocket->hole->y, (self::HOLE * $pocket->holeRadius) ** 2],
            $this->equipment->geometry->pockets,
        );
        // Where the ray through a cell comes to the cloth.
        $deeper = $this->view->at[2] / ($this->view->at[2] - $radius);
        $whites = [];
        foreach ($this->cells as $key => [$r, $g, $b]) {
            $sum = max(1, $r + $g + $b);
            $ratio = $sum / max(1.0, $this->light[$this->tile($key % $this->across, intdiv($key, $this->across))] ?? 1.0);
            $apart = hypot(255 * $r / $sum - $red, 255 * $g / $sum - $green);
            // The darker a cell, the less its colour tells.
            if ($ratio <= self::BRIGHT && $ratio >= self::DARK && $apart <= self::APART * max(1.0, 60 / $sum)) {
                continue;
            }
            $x = $this->view->at[0] + $deeper * (($key % $this->across + 0.5) * self::CELL - $this->view->at[0]);
            $y = $this->view->at[1] + $deeper * ((intdiv($key, $this->across) + 0.5) * self::CELL - $this->view->at[1]);
            $isHole = $ratio < self::DARK && [] !== array_filter(
                $holes,
                static fn (array $hole): bool => ($x - $hole[0]) ** 2 + ($y - $hole[1]) ** 2 < $hole[2],
            );
            if ($isHole) {
                continue;
            }
            $this->mask[$key] = true;
            if ($ratio > self::BRIGHT && max($r, $g, $b) - min($r, $g, $b) < 0.2 * max($r, $g, $b)) {
                $whites[] = $sum / 3;
            }
        }
        sort($whites);
        $this->white = \count($whites) > self::WHITES ? $whites[(int) (self::WHITE_AT * \count($whites))] : $this->white;
    }

    private function tile(int $i, int $j): int
    {
        return intdiv(self::TILES[0] * $i, $this->across) + self::TILES[0] * intdiv(self::TILES[1] * $j, $this->down);
    }

    /**
     * Where balls are: centres in cells.
     *
     * @return list<array{float, float, float}> with the share of the outline that is covered
     */
    private function outlines(): array
    {
        $left = $this->mask;
        $found = [];
        $done = [];
        foreach (array_keys($this->mask) as $start) {
            if (isset($done[$start])) {
                continue;
            }
            $blob = [$start];
            $done[$start] = true;
            for ($n = 0; $n < \count($blob); ++$n) {
                foreach ([1, -1, $this->across, -$this->across] as $step) {
                    $key = $blob[$n] + $step;
                    if (isset($this->mask[$key]) && !isset($done[$key])) {
                        $done[$key] = true;
                        $blob[] = $key;
                    }
                }
            }
            for ($round = 0; $round < 16 && \count($blob) > 30; ++$round) {
                $best = [-\INF, 0, 0, 0.0];
                $stride = max(1, intdiv(\count($blob), 160));
                for ($n = 0; $n < \count($blob); $n += $stride) {
                    $score = $this->covered($left, $blob[$n] % $this->across, intdiv($blob[$n], $this->across));
                    if ($score[0] > $best[0]) {
                        $best = [$score[0], $blob[$n] % $this->across, intdiv($blob[$n], $this->across), $score[1]];
                    }
                }
                for ($near = 0; $near < 6; ++$near) {
                    $before = $best[0];
                    foreach ([[1, 0], [-1, 0], [0, 1], [0, -1], [1, 1], [-1, -1], [1, -1], [-1, 1]] as [$dx, $dy]) {
                        $score = $this->covered($left, $best[1] + $dx, $best[2] + $dy);
                        $best = $score[0] > $best[0] ? [$score[0], $best[1] + $dx, $best[2] + $dy, $score[1]] : $best;
                    }
                    if ($best[0] <= $before) {
                        break;
                    }
                }
                if ($best[3] < self::COVERED) {
                    break;
                }
                $found[] = [...$this->centred($left, $best[1], $best[2]), $best[3]];
                foreach ($this->ellipse($best[1], $best[2], 1.12) as $key) {
                    unset($left[$key]);
                }
                $blob = array_values(array_filter($blob, static fn (int $key): bool => isset($left[$key])));
            }
        }

        return array_values(array_filter($found, fn (array $one): bool => $this->isOnBed($one[0], $one[1])));
    }

    private function isOnBed(float $i, float $j): bool
    {
        $least = 0.7 * $this->equipment->balls->radius / self::CELL;

        return $i > $least && $j > $least && $i < $this->across - $least && $j < $this->down - $least;
    }

    /**
     * @param array<int, true> $mask
     *
     * @return array{float, float} score, and share of the outline that is covered
     */
    private function covered(array $mask, int $i, int $j): array
    {
        $keys = $this->ellipse($i, $j, 1.0);
        $in = 0;
        foreach ($keys as $key) {
            $in += isset($mask[$key]) ? 1 : 0;
        }
        $share = $in / max(1, \count($keys));

        return [$in - 0.6 * (\count($keys) - $in), $share];
    }

    /**
     * The middle of what differs inside an outline.
     *
     * @param array<int, true> $mask
     *
     * @return array{float, float}
     */
    private function centred(array $mask, int $i, int $j): array
    {
        $sumX = $sumY = $count = $beside = 0;
        $ring = array_diff($this->ellipse($i, $j, 1.35), $this->ellipse($i, $j, 1.1));
        foreach ($ring as $key) {
            $beside += isset($this->mask[$key]) ? 1 : 0;
        }
        if ($beside > self::BESIDE * \count($ring)) {
            return [$i + 0.5, $j + 0.5];
        }
        foreach ($this->ellipse($i, $j, 1.12) as $key) {
            if (isset($mask[$key])) {
                $sumX += $key % $this->across;
                $sumY += intdiv($key, $this->across);
                ++$count;
            }
        }

        return 0 === $count ? [$i + 0.5, $j + 0.5] : [$sumX / $count + 0.5, $sumY / $count + 0.5];
    }

    /**
     * The cells that a ball covers at the height of its centre: as wide as it is, and longer away from the camera.
     *
     * @return list<int>
     */
    private function ellipse(int $i, int $j, float $scale): array
    {
        $radius = $this->equipment->balls->radius / self::CELL;
        $dx = $i - $this->view->at[0] / self::CELL;
        $dy = $j - $this->view->at[1] / self::CELL;
        $flat = max(1e-6, \sqrt($dx * $dx + $dy * $dy));
        $high = ($this->view->at[2] - $this->equipment->balls->radius) / self::CELL;
        $long = $radius * min(2.5, \sqrt(1 + ($flat / $high) ** 2)) * $scale;
        $wide = $radius * $scale;
        [$ux, $uy] = [$dx / $flat, $dy / $flat];
        $reach = (int) ceil($long);
        $keys = [];
        for ($b = -$reach; $b <= $reach; ++$b) {
            for ($a = -$reach; $a <= $reach; ++$a) {
                $along = ($a * $ux + $b * $uy) / $long;
                $across = ($a * $uy - $b * $ux) / $wide;
                $isIn = $i + $a >= 0 && $i + $a < $this->across && $j + $b >= 0 && $j + $b < $this->down;
                if ($isIn && $along * $along + $across * $across <= 1.0) {
                    $keys[] = ($j + $b) * $this->across + $i + $a;
                }
            }
        }

        return $keys;
    }

    /**
     * Names them: what each most likely is, the surest first, none twice.
     *
     * @param list<array{float, float, float}> $outlines
     *
     * @return list<SeenBall>
     */
    private function named(array $outlines): array
    {
        $likely = [];
        foreach ($outlines as $n => [$i, $j]) {
            foreach ($this->likeness((int) $i, (int) $j) as $number => $likeness) {
                $likely[] = [$likeness, $n, $number];
            }
        }
        usort($likely, static fn (array $a, array $b): int => $b[0] <=> $a[0]);
        $names = $taken = [];
        foreach ($likely as [$likeness, $n, $number]) {
            if (!isset($names[$n]) && !isset($taken[$number])) {
                $names[$n] = [$number, $likeness];
                $taken[$number] = true;
            }
        }
        $balls = [];
        foreach ($names as $n => [$number, $likeness]) {
            [$i, $j, $covered] = $outlines[$n];
            $balls[] = new SeenBall(
                Ball::from($number),
                Spot::metres($i * self::CELL, $j * self::CELL),
                max(0.0, min(1.0, $likeness)) * min(1.0, $covered),
            );
        }

        return $balls;
    }

    /**
     * How like each ball a spot looks: by the share of white, and the colour of the rest.
     *
     * @return array<int, float> by number, 0 to 1
     */
    private function likeness(int $i, int $j): array
    {
        $light = ($this->light[$this->tile(max(0, min($this->across - 1, $i)), max(0, min($this->down - 1, $j)))] ?? 300.0) / 3;
        $white = $all = 0;
        $sum = [0.0, 0.0, 0.0];
        $coloured = 0;
        $bright = 0.0;
        foreach ($this->ellipse($i, $j, 0.86) as $key) {
            if (!isset($this->cells[$key])) {
                continue;
            }
            [$r, $g, $b] = $this->cells[$key];
            ++$all;
            $most = max($r, $g, $b);
            $least = min($r, $g, $b);
            $bright += $r + $g + $b;
            // White: nearly no colour and not dark; cream leans to yellow.
            if ($most > 0.62 * $light && $most - $least < 0.3 * $most && $r >= $b - 4) {
                ++$white;
                continue;
            }
            ++$coloured;
            $sum[0] += $r;
            $sum[1] += $g;
            $sum[2] += $b;
        }
        if (0 === $all) {
            return [];
        }
        $share = $white / $all;
        $likeness = [Ball::Cue->value => max(0.0, 1 - 3.2 * (1 - $share))];
        if (0 === $coloured) {
            return $likeness;
        }
        [$r, $g, $b] = array_map(static fn (float $one): float => $one / $coloured, $sum);
        $level = ($r + $g + $b) / 3;
        $colourful = max($r, $g, $b) - min($r, $g, $b);
        $dark = $level / max(1.0, $light);
        $isGrey = max(0.0, 1 - $colourful / 26);
        $likeness[Ball::Eight->value] = $isGrey * max(0.0, 1 - max(0.0, $dark - 0.28) / 0.4) * max(0.0, 1 - 1.6 * $share);
        $size = max(1e-6, \sqrt($r * $r + $g * $g + $b * $b));
        $white255 = $this->white / 227 * 3 * $light / max(1.0, $this->usual);
        foreach (BallColours::HUES as $number => $hue) {
            $length = \sqrt($hue[0] ** 2 + $hue[1] ** 2 + $hue[2] ** 2);
            // The angle between the colours, and beside it how bright they are: maroon is a dark red, orange a dark yellow to no one.
            $cosine = min(1.0, ($r * $hue[0] + $g * $hue[1] + $b * $hue[2]) / ($size * $length));
            $angle = rad2deg(acos($cosine));
            $brightness = log(max(1e-3, $size) / (self::SHADED * $length * $white255));
            $like = exp(-0.5 * ($angle / 7) ** 2 - 0.5 * ($brightness / 0.4) ** 2);
            $likeness[$number] = $like * max(0.02, 1 - max(0.0, $share - 0.16) / 0.2);
            $likeness[$number + 8] = $like * max(0.02, min(1.0, ($share - 0.1) / 0.14)) * max(0.02, min(1.0, (0.97 - $share) / 0.1));
        }

        return $likeness;
    }

    /** @param array<int|float> $numbers */
    private static function median(array $numbers): float
    {
        sort($numbers);

        return [] === $numbers ? 0.0 : (float) $numbers[intdiv(\count($numbers), 2)];
    }
}
