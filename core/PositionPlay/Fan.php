<?php

declare(strict_types=1);

namespace ZigLane\Core\PositionPlay;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
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

    /** @param list<array{string, SolvedShot}> $shots what is different, and the shot */
    private function __construct(public array $shots)
    {
    }

    public static function overTips(ShotSolver $solver, Layout $layout, ShotChoice $choice): self
    {
        $tips = ['centre' => Tip::centre()];
        foreach (self::HOURS as $hour) {
            $tip = Tip::atClock($hour, self::OUT * $solver->equipment->offsetPerTip());
            $tips[$tip->clock()] = $tip;
        }
        $strokes = array_map(static fn (Tip $tip): Stroke => new Stroke($tip, $choice->stroke->speed, $choice->stroke->elevation), $tips);

        return self::play($solver, $layout, $choice, $strokes);
    }

    public static function overSpeeds(ShotSolver $solver, Layout $layout, ShotChoice $choice, LengthScale $scale): self
    {
        $lengths = $scale->lengths($choice->stroke->speed);
        $most = $scale->most();
        $strokes = [];
        foreach (self::SPEEDS as $share) {
            if ($share * $lengths <= $most) {
                $strokes[\sprintf('%.1f lengths', $share * $lengths)] = new Stroke($choice->stroke->tip, $scale->speed($share * $lengths), $choice->stroke->elevation);
            }
        }

        return self::play($solver, $layout, $choice, $strokes);
    }

    /** @param array<string, Stroke> $strokes */
    private static function play(ShotSolver $solver, Layout $layout, ShotChoice $choice, array $strokes): self
    {
        $shots = [];
        foreach ($strokes as $label => $stroke) {
            try {
                $shot = $solver->solve($layout, $choice->withStroke($stroke));
            } catch (CoreError) {
                continue;
            }
            if ($shot->isMade()) {
                $shots[] = [(string) $label, $shot];
            }
        }

        return new self($shots);
    }
}
