<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Equipment;

/**
 * How the cue ball may come to an object ball: a lattice of speed, roll (1 rolling, 0 stunned, below that drawn, as a share of the
 * speed) and side (right positive, as a share of the speed) at contact, and for each the stroke that brings it there over a
 * distance, by the closed forms of sliding. With it how far the player's errors move it, in steps of the lattice: a draw over a
 * distance spends its spin on the cloth and magnifies the error of speed.
 *
 * @internal
 */
final readonly class StrokeLattice
{
    /** Slowest speed of the lattice, m/s, and the ratio from each to the next. */
    private const SLOWEST = 0.45;
    private const RATIO = 1.38;
    public const SPEEDS = 8;
    public const ROLLS = [-0.8, -0.25, 0.35, 1.0];
    public const SIDES = [-0.7, 0.0, 0.7];
    public const ROLLED = 4;
    public const SIDED = 3;
    /** Nodes of the lattice: index = (speed * ROLLED + roll) * SIDED + side. */
    public const NODES = self::SPEEDS * self::ROLLED * self::SIDED;
    public const ELEVATION = 2.0;
    /** Farthest from the middle that a tip is planned, as a fraction of the radius: an error must not miscue. */
    public const FARTHEST = 0.45;
    /** Distances for which strokes are worked out, metres. */
    private const DISTANCES = [0.06, 0.15, 0.3, 0.45, 0.6, 0.8, 1.0, 1.25, 1.5, 1.8, 2.2, 2.6];

    /** @var list<float> speeds of the lattice, m/s */
    public array $speeds;

    /**
     * By distance and node: null where no stroke brings it; else the errors as shares of a step along speed, roll and side.
     *
     * @var list<list<array{float, float, float}|null>>
     */
    public array $spreads;

    /**
     * By distance and node: the power to which the chance of a miss is raised where the stroke starts faster or slower than the usual one
     * with that speed at contact, and the errors with it (of a chance that falls off as a normal one does: m^(f^-1.5) for errors f times as
     * large, within 2 points from 0.5 to 0.99 and f up to 2).
     *
     * @var list<list<float>>
     */
    public array $powers;

    /**
     * By distance and node: what is left of a shot's rank by how plain the stroke is, 0 to 1 (Plainness, without cushions).
     *
     * @var list<list<float>>
     */
    public array $plain;

    private float $drag;
    private float $rolling;

    public function __construct(private Equipment $equipment, private ExecutionErrors $errors)
    {
        $table = $equipment->table;
        $this->drag = $table->slide * $table->gravity;
        $this->rolling = 2 * $table->roll * $table->gravity;
        $speeds = [];
        for ($i = 0; $i < self::SPEEDS; ++$i) {
            $speeds[] = self::SLOWEST * self::RATIO ** $i;
        }
        $this->speeds = $speeds;
        $spreads = $powers = $plain = [];
        foreach (self::DISTANCES as $distance) {
            $row = $power = $plains = [];
            foreach ($speeds as $speed) {
                foreach (self::ROLLS as $roll) {
                    foreach (self::SIDES as $side) {
                        $row[] = $this->spread($distance, $speed, $roll, $side);
                        $start = $this->start($distance, $speed, $roll, $side);
                        $power[] = $this->power($distance, $speed, $start[0] ?? null);
                        $plains[] = null === $start ? 1.0 : 1.0 - Plainness::fuss($start[0], $start[1], $start[2], 0.0);
                    }
                }
            }
            $spreads[] = $row;
            $powers[] = $power;
            $plain[] = $plains;
        }
        $this->spreads = $spreads;
        $this->powers = $powers;
        $this->plain = $plain;
    }

    /** The row of `spreads` nearest to a distance, metres. */
    public function row(float $distance): int
    {
        $row = 0;
        // Ends: at the last row.
        while ($row < \count(self::DISTANCES) - 1 && $distance > 0.5 * (self::DISTANCES[$row] + self::DISTANCES[$row + 1])) {
            ++$row;
        }

        return $row;
    }

    /**
     * The stroke that brings the cue ball over a distance with this speed, roll and side, or null if none does without a miscue.
     *
     * @return array{float, float, float}|null speed just after the hit, tip side and height
     */
    public function start(float $distance, float $speed, float $roll, float $side): ?array
    {
        if ($roll > 0.99) {
            $start = \sqrt($speed ** 2 + $this->rolling * $distance);
            $height = 0.4;
        } else {
            $start = \sqrt($speed ** 2 + 2 * $this->drag * $distance);
            $height = ($roll * $speed - 2.5 * ($start - $speed)) / (2.5 * $start);
        }
        $across = $side * $speed / (2.5 * $start);

        return hypot($across, $height) > self::FARTHEST || $start > 0.9 * Strike::MAX_SPEED ? null : [$start, $across, $height];
    }

    public function stroke(float $distance, float $speed, float $roll, float $side): ?Stroke
    {
        $start = $this->start($distance, $speed, $roll, $side);

        return null === $start ? null : new Stroke(Tip::fractions($start[1], $start[2]), $start[0], self::ELEVATION);
    }

    /** The stroke of a node of the lattice over a distance, metres; null if none brings it there. */
    public function strokeAt(float $distance, int $node): ?Stroke
    {
        $i = 0;
        foreach ($this->speeds as $speed) {
            foreach (self::ROLLS as $roll) {
                foreach (self::SIDES as $side) {
                    if ($i++ === $node) {
                        return $this->stroke($distance, $speed, $roll, $side);
                    }
                }
            }
        }

        return null;
    }

    /** @param float|null $start speed of the stroke just after the hit; null where there is none */
    private function power(float $distance, float $speed, ?float $start): float
    {
        $growth = $this->errors->growth;
        $usual = PotModel::startFor($speed, $distance, $this->rolling);

        return null === $start ? 1.0 : ($growth->bySpeed($start) / $growth->bySpeed($usual)) ** -1.5;
    }

    /**
     * The chance of a pot by the stroke of a node, from that by the usual stroke of the same speed at contact.
     *
     * @param float $power of the node, from `powers`
     */
    public static function chance(float $usual, float $power): float
    {
        return 1.0 === $power ? $usual : 1.0 - (1.0 - $usual) ** $power;
    }

    /** @return array{float, float, float}|null */
    private function spread(float $distance, float $speed, float $roll, float $side): ?array
    {
        $stroke = $this->start($distance, $speed, $roll, $side);
        if (null === $stroke) {
            return null;
        }
        [$start] = $stroke;
        $millimetre = 0.001 / $this->equipment->balls->radius;
        $share = $start / $speed;
        $errors = $this->errors->at($start, self::ELEVATION);
        $bySpeed = $errors->speed * $share ** 2;
        $byHeight = 2.5 * $errors->tipHeight * $millimetre * $share;
        if ($roll > 0.99) {
            // What the tip adds or takes is soon rolled off.
            $byHeight = max(0.0, $byHeight - 3.5 * $this->drag * $distance / $start ** 2);
            $byRoll = 0.0;
        } else {
            $byRoll = $errors->speed * ($roll + 2.5) * ($share ** 2 - 1);
        }
        $bySide = 2.5 * $errors->tipSide * $millimetre * $share;

        return [
            min(1.0, $bySpeed / log(self::RATIO)),
            min(1.0, hypot($byHeight, $byRoll) / 0.6),
            min(1.0, $bySide / 0.7),
        ];
    }
}
