<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/**
 * Racks the object balls of a game with the apex on the foot spot, by the world standard rules: nine-ball a diamond with the 1
 * in front and the 9 in the middle; ten-ball a triangle with the 1 in front and the 10 in the middle; eight-ball the 8 in the
 * middle and one of each group in the rear corners; straight pool as they come. The others lie at random.
 *
 * No rack is perfect. The places of the pattern are one diameter and half of `looseness` apart, and each ball lies anywhere within
 * a quarter of it of its place with equal chance: so neighbours have gaps from nothing (frozen) up to `looseness`, half of it on
 * average. 0 is a rack in which all are frozen.
 */
final readonly class Racking
{
    /** Usual looseness of a rack by hand, metres: common practice. */
    public const LOOSENESS = 0.0001;

    /** A ball so near to its place in the rack is racked, metres. */
    private const AS_RACKED = 0.002;

    public static function footSpot(TableProfile $table): Spot
    {
        return Spot::diamonds(6.0, 2.0, $table);
    }

    public static function of(Game $game, Equipment $equipment, Randomness $random, float $looseness = self::LOOSENESS): Layout
    {
        $pitch = $equipment->balls->diameter() + 0.5 * $looseness;
        $apex = self::footSpot($equipment->table);
        $places = [];
        foreach ($game->rules()->rows as $row => $count) {
            for ($i = 0; $i < $count; ++$i) {
                $places[] = [$apex->x + $row * $pitch * \sqrt(3) / 2, $apex->y + ($i - ($count - 1) / 2) * $pitch];
            }
        }
        $layout = Layout::empty();
        foreach (self::order($game, $random) as $place => $ball) {
            $reach = 0.25 * $looseness * \sqrt($random->share());
            $angle = 2 * \M_PI * $random->share();
            $layout = $layout->with(
                $ball,
                Spot::metres($places[$place][0] + $reach * cos($angle), $places[$place][1] + $reach * sin($angle)),
            );
        }

        return $layout;
    }

    /**
     * The outline of a rack of fifteen balls: the triangle round them.
     *
     * @return array{Spot, Spot, Spot} the corner at the apex, then those at the foot, right and left
     */
    public static function outline(Equipment $equipment): array
    {
        $apex = self::footSpot($equipment->table);
        $radius = $equipment->balls->radius;
        // The middles of the outer balls make a triangle with sides of eight radii; the outline lies a radius outside it.
        $height = 8 * $radius * \sqrt(3) / 2;
        $foot = $apex->x + $height + $radius;
        $half = 4 * $radius + $radius * \sqrt(3);

        return [
            Spot::metres($apex->x - 2 * $radius, $apex->y),
            Spot::metres($foot, $apex->y - $half),
            Spot::metres($foot, $apex->y + $half),
        ];
    }

    /** Whether a ball that lies there overlaps the outline of the rack. */
    public static function isInOutline(Spot $spot, Equipment $equipment): bool
    {
        $corners = self::outline($equipment);
        $radius = $equipment->balls->radius;
        $isInside = true;
        foreach ($corners as $i => $from) {
            $to = $corners[($i + 1) % 3];
            [$dx, $dy] = [$to->x - $from->x, $to->y - $from->y];
            $length = hypot($dx, $dy);
            $aside = ($dx * ($spot->y - $from->y) - $dy * ($spot->x - $from->x)) / $length;
            $along = max(0.0, min($length, ($dx * ($spot->x - $from->x) + $dy * ($spot->y - $from->y)) / $length));
            if ($spot->distanceTo(Spot::metres($from->x + $along * $dx / $length, $from->y + $along * $dy / $length)) < $radius) {
                return true;
            }
            $isInside = $isInside && $aside > 0.0;
        }

        return $isInside;
    }

    /**
     * Straight pool after fourteen balls: those are racked again, frozen and without the apex, in the order of their numbers; what else
     * lies there stays.
     *
     * @return Layout|null null where one of those lies in the way of a racked ball
     */
    public static function fourteen(Layout $others, Equipment $equipment): ?Layout
    {
        $layout = $others;
        $numbers = array_values(array_filter(Game::StraightPool->balls(), static fn (Ball $ball): bool => !$others->has($ball)));
        foreach (\array_slice(self::places($equipment), 1) as $place => $spot) {
            foreach ($others->balls() as $ball) {
                if ($others->spot($ball)->distanceTo($spot) < $equipment->balls->diameter()) {
                    return null;
                }
            }
            if (!isset($numbers[$place])) {
                return null;
            }
            $layout = $layout->with($numbers[$place], $spot);
        }

        return $layout;
    }

    /** All fifteen balls of straight pool, frozen, in the order of their numbers. */
    public static function whole(Equipment $equipment): Layout
    {
        $layout = Layout::empty();
        foreach (self::places($equipment) as $place => $spot) {
            $layout = $layout->with(Game::StraightPool->balls()[$place], $spot);
        }

        return $layout;
    }

    /** Whether all fifteen are racked, the apex too. */
    public static function isWhole(Layout $layout, Equipment $equipment): bool
    {
        $apex = array_filter(
            $layout->without(Ball::Cue)->balls(),
            static fn (Ball $ball): bool => $layout->spot($ball)->distanceTo(self::footSpot($equipment->table)) < self::AS_RACKED,
        );

        return [] !== $apex && null !== self::racked($layout, $equipment);
    }

    /**
     * The balls of a layout that lie as fourteen are racked for a break ball: on every place but the apex; null if they do not.
     *
     * @return list<Ball>|null
     */
    public static function racked(Layout $layout, Equipment $equipment): ?array
    {
        $racked = [];
        foreach (\array_slice(self::places($equipment), 1) as $place) {
            $found = null;
            foreach ($layout->balls() as $ball) {
                $found = Ball::Cue !== $ball && $layout->spot($ball)->distanceTo($place) < self::AS_RACKED ? $ball : $found;
            }
            if (null === $found) {
                return null;
            }
            $racked[] = $found;
        }

        return $racked;
    }

    /** @return list<Spot> of fifteen frozen balls, row by row from the apex and from right to left */
    private static function places(Equipment $equipment): array
    {
        $apex = self::footSpot($equipment->table);
        $pitch = $equipment->balls->diameter();
        $places = [];
        for ($row = 0; $row < 5; ++$row) {
            for ($i = 0; $i <= $row; ++$i) {
                $places[] = Spot::metres($apex->x + $row * $pitch * \sqrt(3) / 2, $apex->y + ($i - $row / 2) * $pitch);
            }
        }

        return $places;
    }

    /** @return array<int, Ball> the ball on each place, row by row from the apex and from right to left */
    private static function order(Game $game, Randomness $random): array
    {
        $fixed = $game->rules()->places($random);
        $others = $random->shuffled(array_values(array_filter(
            $game->balls(),
            static fn (Ball $ball): bool => !\in_array($ball, $fixed, true),
        )));
        foreach (array_keys($game->balls()) as $place) {
            $fixed[$place] ??= array_shift($others) ?? throw new \LogicException('More places than balls.');
        }
        ksort($fixed);

        return $fixed;
    }
}
