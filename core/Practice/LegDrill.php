<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/** A drill made of one shot of a rack: the position, the stroke, and where the cue ball has to come, as a drill file. */
final class LegDrill
{
    private const TRIES = 10;
    private const PASS = 7;
    /** Odds of the next ball that count as in its zone. */
    private const ZONE = 0.6;
    /** Rings about the end where there is no next ball, diamonds and points. */
    private const RINGS = [[0.5, 2], [1.0, 1]];

    /**
     * @param string    $text    what the player reads
     * @param Spot|null $landing where the cue ball stops when nothing goes wrong
     * @param Ball|null $next    the ball after it
     * @param int       $before  cushions before the ball is met
     * @param bool      $hides   the cue ball has to be hidden from what is left
     *
     * @return array<string, mixed> a document of format zig-lane/drill
     */
    public static function document(
        string $name,
        string $text,
        Layout $layout,
        ShotChoice $choice,
        TableProfile $table,
        ?Spot $landing = null,
        ?Ball $next = null,
        int $before = 0,
        bool $hides = false,
    ): array {
        $places = [];
        foreach ($layout->balls() as $ball) {
            $places[$ball->label()] = self::diamonds($layout->spot($ball), $table);
        }
        $targets = match (true) {
            $hides => [['kind' => 'hidden', 'points' => 1]],
            null !== $next && $layout->has($next) => [['kind' => 'zone', 'ball' => $next->label(), 'odds' => self::ZONE, 'points' => 1]],
            null !== $landing => [[
                'kind' => 'area',
                'ball' => 'cue',
                'area' => ['rings' => ['at' => self::diamonds($landing, $table), 'of' => self::RINGS]],
                'points' => 1,
            ]],
            default => [],
        };
        $isRings = 'area' === ($targets[0]['kind'] ?? null);

        return [
            'format' => 'zig-lane/drill',
            'version' => 1,
            'name' => mb_substr($name, 0, 80),
            'skill' => $choice->isSafety ? Skill::Safety->value : ([] === $targets ? Skill::Pot->value : Skill::Position->value),
            'text' => mb_substr($text, 0, 2000),
            'minutes' => 10,
            'task' => $choice->isSafety ? Task::Hit->value : Task::Pot->value,
            'ball' => $choice->ball->label(),
            ...($choice->isSafety ? [] : ['pocket' => $choice->pocket->value]),
            'before' => $before,
            'done' => [] === $targets ? 1 : 0,
            'places' => $places,
            'targets' => $targets,
            'tries' => self::TRIES,
            'pass' => $isRings ? 2 * self::PASS : self::PASS,
            'stroke' => [
                'side' => round($choice->stroke->tip->side, 4),
                'height' => round($choice->stroke->tip->height, 4),
                'speed' => round($choice->stroke->speed, 3),
            ],
        ];
    }

    /** @return array{float, float} */
    private static function diamonds(Spot $spot, TableProfile $table): array
    {
        [$long, $short] = $spot->inDiamonds($table);

        return [round($long, 4), round($short, 4)];
    }
}
