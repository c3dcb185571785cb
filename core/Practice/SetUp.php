<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/** Sets the balls of a drill up on a table; what is drawn is drawn by the seed. */
final readonly class SetUp
{
    private const DRAWS = 300;

    private LayoutRules $rules;

    public function __construct(private Drill $drill, private Equipment $equipment)
    {
        $this->rules = new LayoutRules($equipment);
    }

    /**
     * @param int $step of a cue ball that moves away
     *
     * @throws IllegalLayout If the balls cannot lie so, however they are drawn: what was wrong with the last draw
     */
    public function of(int $seed, int $step = 0): Layout
    {
        $random = new Randomness($seed);
        // Ends: at the bound on draws, below.
        for ($draw = 1;; ++$draw) {
            $layout = $this->drawn($random, $step);
            $faults = $this->rules->faults($layout);
            if ([] === $faults) {
                return $layout;
            }
            if ($draw >= self::DRAWS || $this->drill->isFixed()) {
                throw $faults[0];
            }
        }
    }

    /** The first try, or the next one of balls that are set up again. */
    public function attempt(int $seed, int $number = 1, int $step = 0, ?float $last = null): Attempt
    {
        return new Attempt($this->of(($seed * 7919 + 104_729 * $number) & 0x7FFFFFFF, $step), $number, $step, $last);
    }

    private function drawn(Randomness $random, int $step): Layout
    {
        $layout = Layout::empty();
        foreach ($this->drill->places as $number => $place) {
            $ball = Ball::from($number);
            if ($place->isInHand) {
                continue;
            }
            [$long, $short] = [] === $place->spots
                ? $this->within($place, $random)
                : $place->spots[min(\count($place->spots) - 1, (int) ($random->share() * \count($place->spots)))];
            if (Ball::Cue === $ball && null !== $this->drill->moves) {
                [$long, $short] = [$long + $step * $this->drill->moves[0], $short + $step * $this->drill->moves[1]];
            }
            $layout = $layout->with($ball, self::onCloth(Spot::diamonds($long, $short, $this->equipment->table), $this->equipment));
        }

        return $this->drill->isRacked ? Racking::fourteen($layout, $this->equipment) ?? $layout : $layout;
    }

    /** @return array{float, float} */
    private function within(Place $place, Randomness $random): array
    {
        $area = $place->area ?? Area::box(0.0, 0.0, 8.0, 4.0);
        [$long, $short, $toLong, $toShort] = $area->bounds();
        $at = [0.5 * ($long + $toLong), 0.5 * ($short + $toShort)];
        for ($draw = 0; $draw < self::DRAWS; ++$draw) {
            $at = [$long + $random->share() * ($toLong - $long), $short + $random->share() * ($toShort - $short)];
            if ($area->worth(...$at) > 0.0 || 0.0 === $area->outside(...$at)) {
                break;
            }
        }

        return $at;
    }

    /** A spot on or past a nose line is that of a ball frozen there, on any size of table. */
    public static function onCloth(Spot $spot, Equipment $equipment): Spot
    {
        $radius = $equipment->balls->radius;

        return Spot::metres(
            max($radius, min($equipment->table->length - $radius, $spot->x)),
            max($radius, min($equipment->table->width() - $radius, $spot->y)),
        );
    }
}
