<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/** Balls anywhere on the table, each spot as likely as another where a ball can lie. */
final class Scattered
{
    private const ATTEMPTS = 2000;

    /** @param int $count object balls; the money ball of the game is among them, with the cue ball beside them */
    public static function balls(Game $game, int $count, Equipment $equipment, Randomness $random): Layout
    {
        $all = $game->balls();
        $money = $game->rules()->moneyBall;
        $others = array_values(array_filter($random->shuffled($all), static fn (mixed $ball): bool => $ball !== $money));
        $chosen = \array_slice([...(null === $money ? [] : [$money]), ...$others], 0, max(1, min(\count($all), $count)));
        $layout = Layout::empty();
        $rules = new LayoutRules($equipment);
        [$length, $width, $radius] = [$equipment->table->length, $equipment->table->width(), $equipment->balls->radius];
        foreach ([Ball::Cue, ...$chosen] as $ball) {
            for ($i = 0; $i < self::ATTEMPTS; ++$i) {
                $spot = Spot::metres(
                    $radius + ($length - 2 * $radius) * $random->share(),
                    $radius + ($width - 2 * $radius) * $random->share(),
                );
                if ([] === $rules->faults($layout->with($ball, $spot))) {
                    $layout = $layout->with($ball, $spot);
                    break;
                }
            }
        }

        return $layout;
    }
}
