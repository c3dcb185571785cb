<?php

declare(strict_types=1);

namespace ZigLane\Core\Stroke;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/**
 * Where a player stands for a shot, and how far he must lean: of all places beside the table that lie on the side of his cue hand's body
 * (a right-hander stands left of his cue) and behind the bridge, the one from which both of his hands are nearest. It says where to stand
 * and changes no odds.
 *
 * Lengths are common practice, from memory: an ordinary player leans to about a metre and stretches to about 1.3 m from where he stands.
 * Cost: some 400 places, a hundredth of a millisecond each.
 */
final readonly class Stance
{
    /** Of the cue, tip to butt; from the bridge back to the other hand; from the nose of a rail to where one stands. Metres. */
    public const CUE = 1.47;
    private const GRIP = 0.90;
    private const RAIL = 0.13;
    /** The body is at least so far beside the cue, and at most so far ahead of the bridge. */
    private const BESIDE = 0.10;
    private const AHEAD = 0.20;
    /** What is leant to, and what is stretched to at the most. */
    private const LEAN = 1.00;
    private const STRETCH = 1.30;
    private const STEP = 0.02;

    private function __construct(
        public Hand $hand,
        /** Where the bridge hand lies, and where the player stands. */
        public Spot $bridge,
        public Spot $place,
        /** The rail at which he stands. */
        public Rail $rail,
        /** From where he stands to the farther of his hands. */
        public float $metres,
        public Reach $reach,
        /** Of a shot that is far, whether the other hand comes nearer to it without the rest. */
        public bool $isOtherNearer,
    ) {
    }

    /** @param float $direction of the cue, radians */
    public static function of(Spot $cue, float $direction, Hand $hand, TableProfile $table): self
    {
        $bridge = $cue->towards($direction + \M_PI, Bridge::LENGTH);
        [$rail, $place, $metres] = self::nearest($bridge, $direction, $hand, $table);
        $reach = self::reach($metres);
        $other = Reach::Easy === $reach ? \INF : self::nearest($bridge, $direction, $hand->other(), $table)[2];

        return new self(
            $hand, $bridge, $place, $rail, $metres, $reach, $other < $metres && Reach::Rest !== self::reach($other),
        );
    }

    private static function reach(float $metres): Reach
    {
        return match (true) {
            $metres <= self::LEAN => Reach::Easy,
            $metres <= self::STRETCH => Reach::Stretched,
            default => Reach::Rest,
        };
    }

    /** @return array{Rail, Spot, float} rail, place, and from there to the farther hand, metres */
    private static function nearest(Spot $bridge, float $direction, Hand $hand, TableProfile $table): array
    {
        $grip = $bridge->towards($direction + \M_PI, self::GRIP);
        [$ex, $ey] = [cos($direction), sin($direction)];
        $left = Hand::Right === $hand ? 1.0 : -1.0;
        $best = null;
        foreach (self::places($table) as [$rail, $place]) {
            [$dx, $dy] = [$place->x - $bridge->x, $place->y - $bridge->y];
            if ($left * ($ex * $dy - $ey * $dx) < self::BESIDE || $ex * $dx + $ey * $dy > self::AHEAD) {
                continue;
            }
            $metres = max($place->distanceTo($bridge), $place->distanceTo($grip));
            if (null === $best || $metres < $best[2]) {
                $best = [$rail, $place, $metres];
            }
        }
        // Behind and beside the cue there is always a place: the table is finite.
        \assert(null !== $best);

        return $best;
    }

    /** Where to stand, and of a shot that is far what makes it nearer. */
    public function told(): Fact
    {
        return new Fact('stance.'.$this->reach->value, [
            'rail' => $this->rail,
            'byMetres' => $this->metres,
            'isNearer' => $this->isOtherNearer,
            'hand' => $this->hand->other()->value,
        ]);
    }

    /** @return \Generator<array{Rail, Spot}> all round the table, at the outer edge of its rails */
    private static function places(TableProfile $table): \Generator
    {
        [$length, $width] = [$table->length, $table->width()];
        for ($x = -self::RAIL; $x <= $length + self::RAIL; $x += self::STEP) {
            yield [Rail::Right, Spot::metres($x, -self::RAIL)];
            yield [Rail::Left, Spot::metres($x, $width + self::RAIL)];
        }
        for ($y = -self::RAIL; $y <= $width + self::RAIL; $y += self::STEP) {
            yield [Rail::Head, Spot::metres(-self::RAIL, $y)];
            yield [Rail::Foot, Spot::metres($length + self::RAIL, $y)];
        }
    }
}
