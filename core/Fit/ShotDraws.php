<?php

declare(strict_types=1);

namespace ZigLane\Core\Fit;

/**
 * Strokes drawn for one logged shot that explain what was noted of it: their errors and how well each does. Those that do not explain it at
 * all are only counted.
 *
 * @internal
 */
final readonly class ShotDraws
{
    /**
     * @param float                                          $weight    of the shot in the log: 1 for a new one, less for an old
     * @param int                                            $count     strokes drawn
     * @param array{float, float, float, float}              $factors   by which the player's ordinary deviations grow in this shot
     * @param float                                          $judgement what is misjudged, degrees, beside the aim
     * @param list<array{float, float, float, float, float}> $kept      errors (degrees, share, mm, mm), and the likelihood of what
     *                                                                  was noted divided by the density that the stroke was drawn from
     * @param float                                          $outlier   density of a shot that no stroke explains (a slip of the pen)
     */
    public function __construct(
        public float $weight,
        public int $count,
        public array $factors,
        public float $judgement,
        public array $kept,
        public float $outlier,
    ) {
    }

    /** @param list<array{float, float, float, float, float}> $kept */
    public function keeping(array $kept): self
    {
        return new self($this->weight, $this->count, $this->factors, $this->judgement, $kept, $this->outlier);
    }
}
