<?php

declare(strict_types=1);

namespace ZigLane\Core\Format\Internal;

use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/**
 * What several files hold, as arrays.
 *
 * @internal
 */
final class Arrays
{
    /** @return array{cue: array<string, float>, table: array<string, float>, balls: array<string, mixed>} */
    public static function equipment(Equipment $equipment): array
    {
        $balls = $equipment->balls->toArray();

        return [
            'cue' => ['endMassRatio' => $equipment->cue->endMassRatio],
            'table' => $equipment->table->toArray(),
            'balls' => [
                'radius' => $balls['radius'],
                'mass' => $balls['mass'],
                'restitution' => $balls['restitution'],
                'friction' => [$balls['frictionFloor'], $balls['frictionFall'], $balls['frictionRate']],
                'stiffness' => $balls['stiffness'],
                'cueBallWeight' => $balls['cueBallWeight'],
            ],
        ];
    }

    /** @return array{float, float} diamonds */
    public static function spot(Spot $spot, TableProfile $table, int $decimals): array
    {
        return array_map(static fn (float $diamonds): float => round($diamonds, $decimals), $spot->inDiamonds($table));
    }

    /** @return object of ball and spot in diamonds: an empty layout is an object too */
    public static function layout(Layout $layout, TableProfile $table, int $decimals): object
    {
        $spots = [];
        foreach ($layout->balls() as $ball) {
            $spots[$ball->label()] = self::spot($layout->spot($ball), $table, $decimals);
        }

        return (object) $spots;
    }
}
