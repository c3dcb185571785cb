<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Error\IllegalStroke;
use ZigLane\Core\Error\LaneError;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Plan\Option;
use ZigLane\Core\Plan\Order;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Shot\AimFinder;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\Stroke;
use ZigLane\Core\Shot\Tip;

/**
 * What to shoot from where the balls really lie: strokes are ranked by the values of the grid, and the best are aimed and played in
 * full with the player's errors, the same errors for each (common random numbers), to choose between them.
 *
 * @internal
 */
final readonly class Policy
{
    /** What a position is still taken to be worth after a ball that is to come was moved without being meant to. */
    private const MOVED = 0.75;

    private AimFinder $aims;

    public function __construct(public Values $values)
    {
        $rack = $values->survey->rack;
        $this->aims = new AimFinder($rack->table, $rack->balls, $rack->cue);
    }

    /** The policy for a layout in which balls lie where they were not surveyed. */
    public function on(Layout $layout): self
    {
        return $this->values->survey->differsFrom($layout) ? new self($this->values->moved($layout)) : $this;
    }

    /**
     * The most promising shots, tried out, best first.
     *
     * @param int $count how many are tried
     * @param int $tries noisy plays of each
     *
     * @return list<Option>
     */
    public function options(Layout $layout, int $set, int $count, int $tries, int $seed): array
    {
        $options = [];
        foreach (\array_slice($this->ranked($layout, $set), 0, $count) as [, $choice]) {
            $option = $this->tried($layout, $set, $choice, $tries, $seed);
            if (null !== $option) {
                $options[] = $option;
            }
        }
        usort($options, static fn (Option $a, Option $b): int => $b->value <=> $a->value);

        return $options;
    }

    /**
     * Strokes by the values of the grid, best first: for every way into a pocket the best speed of each roll and side.
     *
     * @return list<array{float, ShotChoice}>
     */
    public function ranked(Layout $layout, int $set): array
    {
        $cue = $layout->spot(Ball::Cue);
        $survey = $this->values->survey;
        $ranked = [];
        foreach (Order::balls($this->values->order->next($set)) as $ball) {
            $locked = $this->values->wishes->lockedLeg($ball);
            if (null !== $locked) {
                $ranked[] = [1.0, $locked];
                continue;
            }
            $left = $set & ~(1 << $ball->value);
            foreach ($survey->prospects($ball) as $prospect) {
                $view = 0 !== ($prospect->mask & $left) || $this->values->wishes->forbids($ball, $prospect->pocket) ? null : $prospect->view($cue);
                if (null === $view || 0 !== ($view[2] & $left)) {
                    continue;
                }
                [$place, $row, , $chances] = $view;
                $cut = min((int) $place, RouteTable::CUTS - 2);
                $low = $this->values->worth($prospect, $cut, $left);
                $high = $this->values->worth($prospect, $cut + 1, $left);
                $worth = [];
                foreach ($low as $node => $value) {
                    $worth[] = $value + ($place - $cut) * ($high[$node] - $value);
                }
                $best = [];
                for ($speed = 0; $speed < StrokeBook::SPEEDS; ++$speed) {
                    foreach (Values::blurred($worth, $survey->book->spreads[$row], $speed) as $node => $value) {
                        $value *= $chances[$speed];
                        $kind = $node % (StrokeBook::ROLLED * StrokeBook::SIDED);
                        if ($value > ($best[$kind][0] ?? 0.0)) {
                            $best[$kind] = [$value, $speed];
                        }
                    }
                }
                $distance = $cue->distanceTo($prospect->line->ghost);
                foreach ($best as $kind => [$value, $speed]) {
                    $stroke = $survey->book->strokeAt($distance, $speed * StrokeBook::ROLLED * StrokeBook::SIDED + $kind);
                    if (null !== $stroke) {
                        $ranked[] = [$value, new ShotChoice($ball, $prospect->pocket, $stroke, $prospect->line->asideMetres())];
                    }
                }
            }
        }
        usort($ranked, static fn (array $a, array $b): int => $b[0] <=> $a[0]);

        return $ranked;
    }

    /** A shot aimed and played with the player's errors; null if it cannot be aimed. */
    public function tried(Layout $layout, int $set, ShotChoice $choice, int $tries, int $seed): ?Option
    {
        $rack = $this->values->survey->rack;
        try {
            $aim = $this->aims->find($layout->spot(Ball::Cue), $layout->spot($choice->ball), $choice);
            $strike = $choice->stroke->strike($aim->direction, $rack->cue->endMassRatio);
            $rollouts = $this->values->survey->simulator->rollouts($layout);
        } catch (LaneError) {
            return null;
        }
        $random = new Randomness($seed);
        $sum = 0.0;
        for ($try = 0; $try < $tries; ++$try) {
            try {
                $sum += $this->worth($layout, $set, $choice, $rollouts->play($rack->player->disturb($strike, $random, $rack->balls->radius)));
            } catch (IllegalStroke) {
                // A miscue: worth nothing.
            }
        }

        return new Option($choice, $aim, $strike, $sum / $tries);
    }

    /**
     * A better stroke near an option's, by trying others and keeping what is better: speed, height and side in turn, in steps that
     * are halved (pattern search; Hooke and Jeeves, J. ACM 8, 1961).
     */
    public function polished(Layout $layout, int $set, Option $option, int $tries, int $seed, int $rounds): Option
    {
        $best = $this->tried($layout, $set, $option->choice, $tries, $seed) ?? $option;
        $steps = [0.12, 0.12, 0.12];
        for ($round = 0; $round < $rounds; ++$round) {
            foreach ($steps as $axis => $step) {
                foreach ([$step, -$step] as $change) {
                    $choice = self::changed($best->choice, $axis, $change);
                    $other = null === $choice ? null : $this->tried($layout, $set, $choice, $tries, $seed);
                    if (null !== $other && $other->value > $best->value) {
                        $best = $other;
                        break;
                    }
                }
            }
            $steps = array_map(static fn (float $step): float => 0.55 * $step, $steps);
        }

        return $best;
    }

    private static function changed(ShotChoice $choice, int $axis, float $change): ?ShotChoice
    {
        $stroke = $choice->stroke;
        try {
            $tip = Tip::fractions($stroke->tip->side + (2 === $axis ? $change : 0.0), $stroke->tip->height + (1 === $axis ? $change : 0.0));
            if (hypot($tip->side, $tip->height) > StrokeBook::FARTHEST) {
                return null;
            }

            return new ShotChoice($choice->ball, $choice->pocket, new Stroke($tip, $stroke->speed * (0 === $axis ? 1 + $change : 1.0), $stroke->elevation), $choice->aside);
        } catch (IllegalStroke) {
            return null;
        }
    }

    /** The chance to finish after a shot has ended so. */
    public function worth(Layout $before, int $set, ShotChoice $choice, Ending $ending): float
    {
        $order = $this->values->order;
        if ($ending->isScratch() || !self::isLegal($order, $set, $choice, $ending)) {
            return 0.0;
        }
        $after = self::bits($ending->final);
        $won = $order->isWon($set, $after);
        if (null !== $won) {
            return $won ? 1.0 : 0.0;
        }
        if ($ending->pocketOf($choice->ball) !== $choice->pocket) {
            return 0.0;
        }
        $share = 1.0;
        foreach ($ending->struckBut($choice->ball) as $ball) {
            if (0 !== ($order->toCome($after) & 1 << $ball->value)) {
                $share *= self::MOVED;
            }
        }
        $cue = $ending->final->spot(Ball::Cue);

        return $share * $this->values->at($after, $cue->x, $cue->y);
    }

    /** Whether the cue ball met a ball first that may be shot. */
    public static function isLegal(Order $order, int $set, ShotChoice $choice, Ending $ending): bool
    {
        return null !== $ending->first && 0 !== ($order->next($set) & 1 << $ending->first->value);
    }

    /** The object balls of a layout, as bits. */
    public static function bits(Layout $layout): int
    {
        $set = 0;
        foreach ($layout->balls() as $ball) {
            $set |= Ball::Cue === $ball ? 0 : 1 << $ball->value;
        }

        return $set;
    }
}
