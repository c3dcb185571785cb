<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Stroke\LengthScale;

/** Solves a called shot on a rack's own table. */
final class ShotAnswer
{
    public static function scale(Rack $rack): LengthScale
    {
        return new LengthScale($rack->table, $rack->balls);
    }

    public static function solve(Rack $rack, ShotChoice $choice): SolvedShot
    {
        return (new ShotSolver($rack->table, $rack->balls, $rack->cue))->solve($rack->layout, $choice);
    }
}
