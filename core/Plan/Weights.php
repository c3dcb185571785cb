<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Stroke\Stroke;

/**
 * Where practitioners differ: what a shot costs besides its odds, in points of a hundred, and how its position and its misses are judged.
 * All are nought unless a player sets them: by default the odds alone decide.
 */
final readonly class Weights
{
    /** @var array<string, array{float, float, float}> default, least, most */
    public const LIMITS = [
        'draw' => [0.0, 0.0, 20.0],
        'side' => [0.0, 0.0, 20.0],
        'travel' => [0.0, 0.0, 10.0],
        'drag' => [0.0, 0.0, 20.0],
        'spot' => [0.0, 0.0, 100.0],
        'miss' => [0.0, 0.0, 100.0],
    ];

    /**
     * @param float $draw   for every shot below the centre that is still drawn: the school of follow before draw
     * @param float $side   for every tip of side
     * @param float $travel for every m/s of speed above a soft shot's: the school of the least cue ball travel
     * @param float $drag   for a low stroke over a distance: the school that rolls softly instead
     * @param float $spot   no cost but a share, percent: how much of a shot's worth is that of the spot it is meant for, in the place of
     *                      the mean of where it may stop: the school of the exact spot, against that of the middle of the zone
     * @param float $miss   for a miss that leaves the other player a sure pot or the ball in hand, and in proportion for one that leaves
     *                      him less: the school of the two-way shot, against that of the percentages alone
     */
    public function __construct(
        public float $draw = 0.0, public float $side = 0.0, public float $travel = 0.0,
        public float $drag = 0.0, public float $spot = 0.0, public float $miss = 0.0,
    ) {
        foreach (self::LIMITS as $field => [, $least, $most]) {
            $value = $this->{$field};
            if (!($value >= $least && $value <= $most)) {
                throw new \InvalidArgumentException(\sprintf('The weight "%s" must lie between %g and %g points.', $field, $least, $most));
            }
        }
    }

    /** Whether no stroke costs anything. */
    public function areNone(): bool
    {
        return 0.0 === $this->draw + $this->side + $this->travel + $this->drag;
    }

    /**
     * What a stroke costs, as a share of one.
     *
     * @param float $distance from the cue ball to the ghost ball, metres
     */
    public function cost(Stroke $stroke, float $distance): float
    {
        $low = $stroke->tip->height < -0.1;

        return 0.01 * (
            ($low ? $this->draw : 0.0)
            + ($low && $distance > 0.7 ? $this->drag : 0.0)
            + $this->side * abs($stroke->tip->side) / 0.34
            + $this->travel * max(0.0, $stroke->speed - 1.5)
        );
    }

    /** @return array<string, float> */
    public function toArray(): array
    {
        return [
            'draw' => $this->draw,
            'side' => $this->side,
            'travel' => $this->travel,
            'drag' => $this->drag,
            'spot' => $this->spot,
            'miss' => $this->miss,
        ];
    }
}
