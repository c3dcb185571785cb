<?php

declare(strict_types=1);

namespace ZigLane\Core\PositionPlay;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\LengthScale;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;

/** The same pot played several ways: with the tip at nine places, or at six speeds. Those that do not pot are left out. */
final readonly class Fan
{
    /** Tips away from the centre. */
    private const OUT = 1.0;
    private const HOURS = [12.0, 1.5, 3.0, 4.5, 6.0, 7.5, 9.0, 10.5];
    private const SPEEDS = [0.5, 0.7, 1.0, 1.4, 1.9, 2.5];

    /** @param list<FanShot> $shots those that make the ball */
    private function __construct(public array $shots)
    {
    }

    public static function overTips(ShotSolver $solver, Layout $layout, ShotChoice $choice): self
    {
        $tips = [Tip::centre()];
        foreach (self::HOURS as $hour) {
            $tips[] = Tip::atClock($hour, self::OUT * $solver->equipment->offsetPerTip());
        }
        $shots = [];
        foreach ($tips as $tip) {
            $shots[] = self::played(
                $solver,
                $layout,
                $choice->withStroke(new Stroke($tip, $choice->stroke->speed, $choice->stroke->elevation)),
            );
        }

        return new self(array_values(array_filter($shots)));
    }

    public static function overSpeeds(ShotSolver $solver, Layout $layout, ShotChoice $choice, LengthScale $scale): self
    {
        $lengths = $scale->lengths($choice->stroke->speed);
        $most = $scale->most();
        $shots = [];
        foreach (self::SPEEDS as $share) {
            if ($share * $lengths <= $most) {
                $stroke = new Stroke($choice->stroke->tip, $scale->speed($share * $lengths), $choice->stroke->elevation);
                $shots[] = self::played($solver, $layout, $choice->withStroke($stroke), $share * $lengths);
            }
        }

        return new self(array_values(array_filter($shots)));
    }

    /** Null if the ball is not made so. */
    private static function played(ShotSolver $solver, Layout $layout, ShotChoice $choice, ?float $lengths = null): ?FanShot
    {
        try {
            $shot = $solver->solve($layout, $choice);
        } catch (CoreError) {
            return null;
        }

        return $shot->isMade() ? new FanShot($shot, $lengths) : null;
    }
}
