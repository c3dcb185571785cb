<?php

declare(strict_types=1);

namespace ZigLane\Core\Camera;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/** What a picture shows as a layout: balls that were seen to lie a little over each other or a rail are moved to where they can lie. */
final readonly class SeenLayout
{
    /** A ball that is found this near to another or a rail lies against it; farther it is an error, metres. */
    private const NUDGE = 0.02;
    private const ROUNDS = 12;
    /** Balls that were moved apart lie so far from touching, metres. */
    private const APART = 1e-5;
    /** More than these, and it is something else that was seen. */
    private const MOST = 16;
    /** A ball that is seen no farther than this from where it lay has not moved: the picture is no surer than that. */
    private const STILL = 0.015;

    /**
     * @param list<SeenBall> $laid   the surest first
     * @param list<SeenBall> $unused not of this game, or in another ball's place
     */
    private function __construct(public Layout $layout, public array $laid, public array $unused)
    {
    }

    /** @param list<SeenBall> $seen */
    public static function of(array $seen, Rack $rack): self
    {
        usort($seen, static fn (SeenBall $a, SeenBall $b): int => $b->confidence <=> $a->confidence);
        $layout = Layout::empty();
        $laid = $unused = [];
        $rules = new LayoutRules($rack->equipment);
        foreach ($seen as $one) {
            $spot = $rack->game->uses($one->ball) ? self::clear($layout, $one, $rules, $rack->equipment) : null;
            if (null === $spot) {
                $unused[] = $one;
                continue;
            }
            $layout = $layout->with($one->ball, $spot);
            $laid[] = $one;
        }

        return new self($layout, $laid, $unused);
    }

    /**
     * What a picture shows.
     *
     * @param list<array{float, float}> $corners pixels, in the order of Finder::CORNERS
     *
     * @throws UnreadablePicture If there is no table in it, or no balls
     */
    public static function in(\GdImage $image, array $corners, Rack $rack): self
    {
        $seen = Finder::find($image, $corners, $rack->equipment) ?? throw UnreadablePicture::because('noTable');
        if ([] === $seen || \count($seen) > self::MOST) {
            throw UnreadablePicture::because('noBalls');
        }

        return self::of($seen, $rack);
    }

    /**
     * Where the balls of a layout lie now. A ball that has hardly moved lies where it lay; one that was not there before is none of them.
     *
     * @return array<int, Spot> by number; a ball that is not seen is missing
     */
    public function since(Layout $before): array
    {
        $now = [];
        foreach ($this->layout->balls() as $ball) {
            if ($before->has($ball) || Ball::Cue === $ball) {
                $spot = $this->layout->spot($ball);
                $isStill = $before->has($ball) && $before->spot($ball)->distanceTo($spot) < self::STILL;
                $now[$ball->value] = $isStill ? $before->spot($ball) : $spot;
            }
        }

        return $now;
    }

    /** Where a ball can lie, no farther off than it may have been seen wrongly; null where there is no such place. */
    private static function clear(Layout $layout, SeenBall $one, LayoutRules $rules, Equipment $equipment): ?Spot
    {
        $table = $equipment->table;
        $radius = $equipment->balls->radius;
        $spot = $wished = Spot::metres(
            max($radius, min($table->length - $radius, $one->spot->x)),
            max($radius, min($table->width() - $radius, $one->spot->y)),
        );
        for ($i = 0; $i < self::ROUNDS && [] !== $rules->faults($layout->with($one->ball, $spot)); ++$i) {
            foreach ($layout->balls() as $other) {
                $at = $layout->spot($other);
                if ($at->distanceTo($spot) < 2 * $radius) {
                    $spot = $at->towards($at->directionTo($spot), 2 * $radius + self::APART);
                }
            }
        }

        return [] === $rules->faults($layout->with($one->ball, $spot)) && $spot->distanceTo($wished) < self::NUDGE ? $spot : null;
    }
}
