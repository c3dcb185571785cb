<?php

declare(strict_types=1);

namespace ZigLane\Core\Table;

use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;

/** Where noses, facings and holes of a table lie, in the frame of the core: x from the head rail, y from the right rail, metres. */
final readonly class TableGeometry
{
    /** @var non-empty-array<'HR'|'SR'|'FR'|'HL'|'SL'|'FL', PocketGeometry> */
    public array $pockets;

    /** @var list<array{Rail, Spot, Spot}> the straight noses from nose point to nose point; a long rail is two */
    public array $rails;

    public function __construct(public TableProfile $table)
    {
        $length = $table->length;
        $width = $table->width();
        $cut = $table->cornerMouth / \M_SQRT2;
        $half = $table->sideMouth / 2;
        // The nose on the long rail, then the one on the short rail; (sx, sy) points from the corner into the table.
        $lean = deg2rad($table->cornerFacing);
        $corner = static fn (Pocket $pocket, float $x, float $y, int $sx, int $sy): PocketGeometry => self::pocket(
            $pocket, $table, Spot::metres($x + $sx * $cut, $y), $sx * cos($lean), -$sy * sin($lean),
            Spot::metres($x, $y + $sy * $cut), -$sx * sin($lean), $sy * cos($lean),
        );
        $slant = deg2rad($table->sideFacing);
        $side = static fn (Pocket $pocket, float $y, int $sy): PocketGeometry => self::pocket(
            $pocket,
            $table,
            Spot::metres($length / 2 - $half, $y),
            -cos($slant),
            -$sy * sin($slant),
            Spot::metres($length / 2 + $half, $y),
            cos($slant),
            -$sy * sin($slant),
        );
        $pockets = [
            'HR' => $corner(Pocket::HeadRight, 0.0, 0.0, 1, 1),
            'SR' => $side(Pocket::SideRight, 0.0, 1),
            'FR' => $corner(Pocket::FootRight, $length, 0.0, -1, 1),
            'HL' => $corner(Pocket::HeadLeft, 0.0, $width, 1, -1),
            'SL' => $side(Pocket::SideLeft, $width, -1),
            'FL' => $corner(Pocket::FootLeft, $length, $width, -1, -1),
        ];
        $this->pockets = $pockets;
        $this->rails = [
            [Rail::Head, $pockets['HR']->noseB, $pockets['HL']->noseB],
            [Rail::Foot, $pockets['FR']->noseB, $pockets['FL']->noseB],
            [Rail::Right, $pockets['HR']->noseA, $pockets['SR']->noseA],
            [Rail::Right, $pockets['SR']->noseB, $pockets['FR']->noseA],
            [Rail::Left, $pockets['HL']->noseA, $pockets['SL']->noseA],
            [Rail::Left, $pockets['SL']->noseB, $pockets['FL']->noseA],
        ];
    }

    public function at(Pocket $pocket): PocketGeometry
    {
        return $this->pockets[$pocket->value];
    }

    private static function pocket(
        Pocket $pocket, TableProfile $table, Spot $a, float $ax, float $ay, Spot $b, float $bx, float $by,
    ): PocketGeometry {
        $mouthX = ($a->x + $b->x) / 2;
        $mouthY = ($a->y + $b->y) / 2;
        $side = $pocket->isSide();
        $axisX = $side ? 0.0 : ($mouthX < $table->length / 2 ? -\M_SQRT1_2 : \M_SQRT1_2);
        $axisY = ($mouthY < $table->width() / 2 ? -1.0 : 1.0) * ($side ? 1.0 : \M_SQRT1_2);
        $radius = ($side ? $table->sideMouth : $table->cornerMouth) / 2;
        $depth = ($side ? $table->sideShelf : $table->cornerShelf) + $radius;
        $reach = $table->facingLength;

        return new PocketGeometry(
            $pocket,
            $a,
            $b,
            Spot::metres($a->x + $reach * $ax, $a->y + $reach * $ay),
            Spot::metres($b->x + $reach * $bx, $b->y + $reach * $by),
            Spot::metres($mouthX + $depth * $axisX, $mouthY + $depth * $axisY),
            $radius,
            $axisX,
            $axisY,
        );
    }
}
