<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/**
 * From metres on the table to the units of a drawing, which are millimetres on the table. Landscape: head rail left, left rail
 * on top. Upright (for a phone held by the table): foot rail on top, left rail left, as seen by a player at the head rail.
 */
final readonly class Projection
{
    public function __construct(public TableProfile $table, public bool $upright = false)
    {
    }

    /** @return array{float, float} */
    public function point(Spot $spot): array
    {
        return $this->xy($spot->x, $spot->y);
    }

    /** @return array{float, float} */
    public function xy(float $x, float $y): array
    {
        $width = $this->table->width();

        return $this->upright
            ? [self::mm($width - $y), self::mm($this->table->length - $x)]
            : [self::mm($x), self::mm($width - $y)];
    }

    /** The spot at a point of the drawing. */
    public function spot(float $x, float $y): Spot
    {
        $width = $this->table->width();

        return $this->upright
            ? Spot::metres($this->table->length - $y / 1000, $width - $x / 1000)
            : Spot::metres($x / 1000, $width - $y / 1000);
    }

    public function text(Spot $spot): string
    {
        [$x, $y] = $this->point($spot);

        return self::number($x).' '.self::number($y);
    }

    /**
     * A line through spots, as path data.
     *
     * @param list<Spot> $spots
     */
    public function path(array $spots): string
    {
        return 'M'.implode('L', array_map($this->text(...), $spots));
    }

    public function across(): float
    {
        return self::mm($this->upright ? $this->table->width() : $this->table->length);
    }

    public function down(): float
    {
        return self::mm($this->upright ? $this->table->length : $this->table->width());
    }

    public static function number(float $millimetres): string
    {
        return rtrim(rtrim(number_format($millimetres, 1, '.', ''), '0'), '.');
    }

    private static function mm(float $metres): float
    {
        return round($metres * 1000, 1);
    }
}
