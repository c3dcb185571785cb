<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\App\Analysis\Projection;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Table\PocketGeometry;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableGeometry;

/** A table with its balls as drawn: everything in the units of its projection. */
final readonly class TableDrawing
{
    /** Room around the play surface for rails, diamonds and their numbers, millimetres. */
    private const MARGIN = 186;
    private const RAIL = 104;
    /** Half of a rail's name and half of a flag on the rail, millimetres. */
    private const NAME = 150;

    public Projection $projection;
    public string $viewBox;
    public string $smallViewBox;
    public float $width;
    public float $height;
    public float $radius;
    public int $rail;

    /** @var list<array{name: string, bed: string, x: float, y: float, r: float, nameX: float, nameY: float}> */
    public array $pockets;

    /** @var list<string> the rails' noses as path data */
    public array $noses;

    /** @var list<array{drawn: bool, x: float, y: float, label: string, labelX: float, labelY: float}> */
    public array $diamonds;

    /** @var list<array{x1: float, y1: float, x2: float, y2: float}> */
    public array $grid;

    /** @var list<array{ball: Ball, number: int, label: string, striped: bool, x: float, y: float, long: float, short: float}> */
    public array $balls;

    public function __construct(public Rack $rack, bool $upright = false)
    {
        $table = $rack->equipment->table;
        $p = $this->projection = new Projection($table, $upright);
        $this->width = $p->across();
        $this->height = $p->down();
        $this->radius = 1000 * $rack->equipment->balls->radius;
        $this->rail = self::RAIL;
        $this->viewBox = \sprintf(
            '%d %d %s %s',
            -self::MARGIN,
            -self::MARGIN,
            $this->width + 2 * self::MARGIN,
            $this->height + 2 * self::MARGIN,
        );
        $this->smallViewBox = \sprintf(
            '%d %d %s %s',
            -self::RAIL - 6,
            -self::RAIL - 6,
            $this->width + 2 * self::RAIL + 12,
            $this->height + 2 * self::RAIL + 12,
        );
        $geometry = new TableGeometry($table);
        $this->pockets = array_map($this->pocket(...), array_values($geometry->pockets));
        $this->noses = array_map(static fn (array $rail): string => 'M'.$p->text($rail[1]).'L'.$p->text($rail[2]), $geometry->rails);
        $this->diamonds = $this->marks();
        $this->grid = $this->lines();
        $this->balls = $this->spots($rack->layout);
    }

    /** @return array{name: string, bed: string, x: float, y: float, r: float, nameX: float, nameY: float} */
    private function pocket(PocketGeometry $pocket): array
    {
        $p = $this->projection;
        [$x, $y] = $p->point($pocket->hole);
        $reach = $pocket->pocket->isSide() ? 0.104 : 0.077;
        [$nameX, $nameY] = $p->point(Spot::metres($pocket->hole->x + $reach * $pocket->axisX, $pocket->hole->y + $reach * $pocket->axisY));

        return [
            'name' => $pocket->pocket->value,
            'bed' => 'M'
                .$p->text($pocket->noseA)
                .'L'
                .$p->text($pocket->facingEndA)
                .'L'
                .$p->text($pocket->facingEndB)
                .'L'
                .$p->text($pocket->noseB)
                .'Z',
            'x' => $x,
            'y' => $y,
            'r' => 1000 * $pocket->holeRadius,
            'nameX' => $nameX,
            'nameY' => $nameY,
        ];
    }

    /** @return list<array{drawn: bool, x: float, y: float, label: string, labelX: float, labelY: float}> */
    private function marks(): array
    {
        $table = $this->rack->equipment->table;
        $d = $table->diamond();
        $in = 0.056;
        $out = 0.158;
        $marks = [];
        for ($long = 0; $long <= 8; ++$long) {
            foreach ([-1, 1] as $side) {
                $y = $side < 0 ? 0.0 : $table->width();
                $marks[] = $this->mark($long * $d, $y + $side * $in, $long * $d, $y + $side * $out, $long, 0 !== $long % 4);
            }
        }
        for ($short = 0; $short <= 4; ++$short) {
            foreach ([-1, 1] as $side) {
                $x = $side < 0 ? 0.0 : $table->length;
                $marks[] = $this->mark($x + $side * $in, $short * $d, $x + $side * $out, $short * $d, $short, 0 !== $short % 4);
            }
        }

        return $marks;
    }

    /** @return array{drawn: bool, x: float, y: float, label: string, labelX: float, labelY: float} */
    private function mark(float $x, float $y, float $labelX, float $labelY, int $number, bool $drawn): array
    {
        [$px, $py] = $this->projection->xy($x, $y);
        [$lx, $ly] = $this->projection->xy($labelX, $labelY);

        // Where a pocket takes a diamond's place only the number is drawn.
        return ['drawn' => $drawn, 'x' => $px, 'y' => $py, 'label' => (string) $number, 'labelX' => $lx, 'labelY' => $ly];
    }

    /** @return list<array{x1: float, y1: float, x2: float, y2: float}> */
    private function lines(): array
    {
        $table = $this->rack->equipment->table;
        $d = $table->diamond();
        $lines = [];
        for ($i = 1; $i < 8; ++$i) {
            $lines[] = [$i * $d, 0.0, $i * $d, $table->width()];
        }
        for ($i = 1; $i < 4; ++$i) {
            $lines[] = [0.0, $i * $d, $table->length, $i * $d];
        }

        return array_map(function (array $line): array {
            [$x1, $y1] = $this->projection->xy($line[0], $line[1]);
            [$x2, $y2] = $this->projection->xy($line[2], $line[3]);

            return ['x1' => $x1, 'y1' => $y1, 'x2' => $x2, 'y2' => $y2];
        }, $lines);
    }

    /**
     * The rails' names, where no flag covers them.
     *
     * @param list<array{boxX: float, boxY: float}> $flags
     *
     * @return list<array{text: string, x: float, y: float, turn: int}>
     */
    public function railNames(array $flags = []): array
    {
        $table = $this->rack->equipment->table;
        $d = $table->diamond();
        $upright = $this->projection->upright;
        $out = 0.052;
        $names = [];
        foreach ([
            ['right rail', false, -$out, $upright ? 90 : 0],
            ['left rail', false, $table->width() + $out, $upright ? -90 : 0],
            ['head rail', true, -$out, $upright ? 0 : -90],
            ['foot rail', true, $table->length + $out, $upright ? 0 : 90],
        ] as [$text, $isShort, $across, $turn]) {
            foreach ($isShort ? [1.5, 2.5] : [2.5, 5.5, 1.5, 6.5] as $place) {
                [$x, $y] = $isShort ? $this->projection->xy($across, $place * $d) : $this->projection->xy($place * $d, $across);
                if ([] === array_filter(
                    $flags,
                    static fn (array $flag): bool => hypot($flag['boxX'] - $x, $flag['boxY'] - $y) < self::NAME,
                )) {
                    $names[] = ['text' => $text, 'x' => $x, 'y' => $y, 'turn' => $turn];
                    break;
                }
            }
        }

        return $names;
    }

    /** @return list<array{ball: Ball, number: int, label: string, striped: bool, x: float, y: float, long: float, short: float}> */
    private function spots(Layout $layout): array
    {
        return array_map(function (Ball $ball) use ($layout): array {
            $spot = $layout->spot($ball);
            [$x, $y] = $this->projection->point($spot);
            [$long, $short] = $spot->inDiamonds($this->rack->equipment->table);

            return [
                'ball' => $ball,
                'number' => $ball->value,
                'label' => $ball->label(),
                'striped' => $ball->isStriped(),
                'x' => $x,
                'y' => $y,
                'long' => round($long, Rack::GRAIN),
                'short' => round($short, Rack::GRAIN),
            ];
        }, $layout->balls());
    }
}
