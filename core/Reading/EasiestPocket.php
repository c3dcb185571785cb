<?php

declare(strict_types=1);

namespace ZigLane\Core\Reading;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\GhostBall;
use ZigLane\Core\Shot\NoAim;
use ZigLane\Core\Table\TableGeometry;

/** A first guess at a pocket, by plain geometry; it knows nothing of blockers or odds. */
final class EasiestPocket
{
    /**
     * The pocket with the least cut from where the cue ball is; the foot right corner if every cut is too thin.
     *
     * @throws IllegalLayout If the ball or the cue ball is not on the table
     */
    public static function leastCut(Rack $rack, Ball $ball): Pocket
    {
        $cue = $rack->layout->spot(Ball::Cue);
        $object = $rack->layout->spot($ball);
        $geometry = new TableGeometry($rack->equipment->table);
        $best = Pocket::FootRight;
        $least = \INF;
        foreach (Pocket::cases() as $pocket) {
            try {
                $cut = GhostBall::of($cue, $object, $geometry->at($pocket), $rack->equipment->balls, $ball)->cutDegrees;
            } catch (NoAim) {
                continue;
            }
            if ($cut < $least) {
                $least = $cut;
                $best = $pocket;
            }
        }

        return $best;
    }
}
