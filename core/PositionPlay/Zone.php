<?php

declare(strict_types=1);

namespace ZigLane\Core\PositionPlay;

use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * The zone of a ball: the cue ball spots from which it can be potted with at least some odds, in one pocket or the best of several.
 * The odds are taken on a grid; where a contour crosses the line between two grid points the place is found by halving with the
 * odds themselves, to a two-hundredth of the grid's step: edges of what other balls shut off are so true to their exact geometry.
 */
final class Zone
{
    /** Grid lines along the table; half as many and one across. */
    public const LINES = 50;
    private const HALVINGS = 7;

    /** @var array<string, Spot> places on the contours that two cells share */
    private array $crossings = [];

    /**
     * @param list<PotModel>        $lines
     * @param list<list<float>>     $odds  at the grid points, by column from the head rail, each from the right rail
     * @param \Closure(Spot): float $from  the odds from any spot
     */
    private function __construct(
        public readonly array $lines,
        private readonly array $odds,
        private readonly float $left,
        private readonly float $bottom,
        private readonly float $stepX,
        private readonly float $stepY,
        private readonly \Closure $from,
    ) {
    }

    /** @param list<PotModel> $lines of one ball */
    public static function of(array $lines, Equipment $equipment): self
    {
        return self::ofOdds($lines, static fn (Spot $spot): float => self::best($lines, $spot), $equipment);
    }

    /**
     * The same with odds of another kind, such as those to make this ball and the one after it.
     *
     * @param list<PotModel>        $lines of one ball
     * @param \Closure(Spot): float $from  the odds from any spot, 0 to 1
     */
    public static function ofOdds(array $lines, \Closure $from, Equipment $equipment): self
    {
        $table = $equipment->table;
        $least = $equipment->balls->radius;
        // The outermost lines of the grid are where the ball touches the rails, on all four sides.
        $stepX = ($table->length - 2 * $least) / self::LINES;
        $rows = (int) ceil(($table->width() - 2 * $least) / $stepX - 1e-9);
        $stepY = ($table->width() - 2 * $least) / $rows;
        $odds = [];
        for ($i = 0; $i <= self::LINES; ++$i) {
            for ($j = 0; $j <= $rows; ++$j) {
                $spot = Spot::metres($least + $i * $stepX, $least + $j * $stepY);
                $odds[$i][$j] = $from($spot);
            }
        }

        return new self($lines, array_map(array_values(...), array_values($odds)), $least, $least, $stepX, $stepY, $from);
    }

    /**
     * The best odds of any line from a spot; 0 where another ball lies.
     *
     * @param list<PotModel> $lines
     */
    public static function best(array $lines, Spot $spot): float
    {
        if ([] === $lines) {
            return 0.0;
        }
        $layout = $lines[0]->layout;
        $reach = $lines[0]->ballDiameter();
        foreach ($layout->balls() as $ball) {
            if ($layout->spot($ball)->distanceTo($spot) < $reach) {
                return 0.0;
            }
        }
        $best = 0.0;
        foreach ($lines as $line) {
            $best = max($best, $line->chance($spot));
        }

        return $best;
    }

    /** Area in which the odds are at least so good, square metres: grid points times their share. */
    public function area(float $odds): float
    {
        $count = 0;
        foreach ($this->odds as $column) {
            foreach ($column as $value) {
                $count += $value >= $odds ? 1 : 0;
            }
        }

        return $count * $this->stepX * $this->stepY;
    }

    public function most(): float
    {
        return max(0.0, ...array_merge(...$this->odds));
    }

    /**
     * The edges of the part of the grid where the odds are at least so good, as closed rings: by the even-odd rule what lies within them
     * is the zone. Each cell's part is gone round the same way, so that a side which two cells share is there in both directions and
     * falls out; what is left closes up. Splinters smaller than half a cell are left out: they tell of the grid and not of the table.
     *
     * @return list<list<Spot>> without the first spot again at the end of a ring
     */
    public function rings(float $odds): array
    {
        $spots = $sides = [];
        foreach ($this->odds as $i => $column) {
            for ($j = 0, $rows = \count($column) - 1; $i < self::LINES && $j < $rows; ++$j) {
                $corners = [$column[$j], $this->odds[$i + 1][$j], $this->odds[$i + 1][$j + 1], $column[$j + 1]];
                $part = max($corners) >= $odds ? $this->part($i, $j, $corners, $odds) : [];
                $keys = array_map(static fn (Spot $spot): string => \sprintf('%.7F %.7F', $spot->x, $spot->y), $part);
                foreach ($keys as $k => $from) {
                    $spots[$from] = $part[$k];
                    $to = $keys[($k + 1) % \count($keys)];
                    if (isset($sides[$to][$from])) {
                        unset($sides[$to][$from]);
                    } elseif ($from !== $to) {
                        $sides[$from][$to] = true;
                    }
                }
            }
        }

        $least = 0.5 * $this->stepX * $this->stepY;

        return array_values(array_filter(
            self::closed($sides, $spots),
            static fn (array $ring): bool => self::enclosed($ring) >= $least,
        ));
    }

    /**
     * @param list<Spot> $ring
     *
     * @return float square metres
     */
    private static function enclosed(array $ring): float
    {
        $twice = 0.0;
        foreach ($ring as $i => $spot) {
            $next = $ring[($i + 1) % \count($ring)];
            $twice += $spot->x * $next->y - $next->x * $spot->y;
        }

        return 0.5 * abs($twice);
    }

    /**
     * @param array<string, array<string, true>> $sides from spot to spot
     * @param array<string, Spot>                $spots
     *
     * @return list<list<Spot>>
     */
    private static function closed(array $sides, array $spots): array
    {
        $rings = [];
        foreach (array_keys($sides) as $start) {
            // Ends: each ring takes its sides away.
            while ([] !== ($sides[$start] ?? [])) {
                $ring = [];
                // Ends: each round takes a side away.
                for ($at = $start; [] !== ($sides[$at] ?? []); $at = $to) {
                    $to = (string) array_key_first($sides[$at]);
                    unset($sides[$at][$to]);
                    $ring[] = $spots[$at];
                }
                $rings[] = self::withoutStraights($ring);
            }
        }

        return $rings;
    }

    /**
     * @param list<Spot> $ring
     *
     * @return list<Spot> without those that lie straight between their neighbours
     */
    private static function withoutStraights(array $ring): array
    {
        $kept = [];
        foreach ($ring as $i => $spot) {
            $before = $ring[$i > 0 ? $i - 1 : \count($ring) - 1];
            $after = $ring[($i + 1) % \count($ring)];
            if (abs(($spot->x - $before->x) * ($after->y - $spot->y) - ($spot->y - $before->y) * ($after->x - $spot->x)) > 1e-9) {
                $kept[] = $spot;
            }
        }

        return $kept;
    }

    /**
     * The part of one cell above the threshold: its good corners, and the points on its sides between a good one and a bad one.
     *
     * @param non-empty-list<float> $corners
     *
     * @return list<Spot>
     */
    private function part(int $i, int $j, array $corners, float $odds): array
    {
        $places = [[$i, $j], [$i + 1, $j], [$i + 1, $j + 1], [$i, $j + 1]];
        $polygon = [];
        for ($k = 0; $k < 4; ++$k) {
            $next = ($k + 1) % 4;
            if ($corners[$k] >= $odds) {
                $polygon[] = $this->at(...$places[$k]);
            }
            if (($corners[$k] >= $odds) !== ($corners[$next] >= $odds)) {
                $polygon[] = $this->crossing($places[$k], $places[$next], $corners[$k] >= $odds, $odds);
            }
        }

        return $polygon;
    }

    /**
     * @param array{int, int} $one   a grid point
     * @param array{int, int} $other its neighbour, on the other side of the contour
     */
    private function crossing(array $one, array $other, bool $oneIsIn, float $odds): Spot
    {
        $key = min($one, $other)[0].' '.min($one, $other)[1].' '.max($one, $other)[0].' '.max($one, $other)[1].' '.$odds;
        if (isset($this->crossings[$key])) {
            return $this->crossings[$key];
        }
        $low = 0.0;
        $high = 1.0;
        for ($round = 0; $round < self::HALVINGS; ++$round) {
            $middle = 0.5 * ($low + $high);
            $spot = $this->at($one[0] + $middle * ($other[0] - $one[0]), $one[1] + $middle * ($other[1] - $one[1]));
            (($this->from)($spot) >= $odds) === $oneIsIn ? $low = $middle : $high = $middle;
        }
        $middle = 0.5 * ($low + $high);

        return $this->crossings[$key] = $this->at($one[0] + $middle * ($other[0] - $one[0]), $one[1] + $middle * ($other[1] - $one[1]));
    }

    private function at(float $i, float $j): Spot
    {
        return Spot::metres($this->left + $i * $this->stepX, $this->bottom + $j * $this->stepY);
    }
}
