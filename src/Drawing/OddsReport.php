<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\Core\Odds\PocketSides;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Odds\Window;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Table\Rail;

/** The chance of a pot in words: from simulated tries, with the window that the cue has and the side that misses tend to. */
final readonly class OddsReport
{
    private const TRIES = 300;

    public int $ofHundred;
    public string $between;
    public int $tries;
    public string $window;
    public string $misses;
    /** What the pocket takes at this speed, in words. */
    public string $sides;
    /** Side of the pocket, mm, that goes off a rail first; empty where that is not to be had. */
    public string $railFirst;

    public function __construct(Rack $rack, SolvedShot $shot)
    {
        $solver = new ShotSolver($rack->equipment);
        $trials = Trials::of($shot, $solver, $rack->player, self::TRIES);
        [$low, $high] = Trials::interval($trials->made, $trials->count);
        $this->ofHundred = (int) round(100 * $trials->chance());
        $this->between = \sprintf('%.0f to %.0f', 100 * $low, 100 * $high);
        $this->tries = $trials->count;
        $window = Window::of($shot, $solver);
        $this->window = \sprintf('the cue may turn %.2f° left or %.2f° right: %.0f or %.0f mm at the pocket', rad2deg($window->left), rad2deg($window->right), 1000 * $window->atPocket[0], 1000 * $window->atPocket[1]);
        $sides = null === $shot->choice->direction ? PocketSides::of($shot, $solver) : null;
        $told = array_filter(['straight' => $sides?->straight(), 'rail' => $sides?->railFirst()]);
        $this->sides = implode('; ', array_map(self::side(...), $told));
        $this->railFirst = isset($told['rail']) ? \sprintf('%.0f', 500 * ($told['rail']['from'] + $told['rail']['to'])) : '';
        $misses = $trials->thick + $trials->thin;
        $this->misses = match (true) {
            0 === $misses => 'no misses',
            $trials->thick > 1.5 * $trials->thin => 'misses tend to be too full',
            $trials->thin > 1.5 * $trials->thick => 'misses tend to be too thin',
            default => 'misses fall to both sides',
        };
    }

    /** @param array{from: float, to: float, rail: Rail|null} $piece */
    private static function side(array $piece): string
    {
        $at = static fn (float $aside): string => \sprintf('%.0f mm %s', 1000 * abs($aside), $aside < 0.0 ? 'right' : 'left');

        return \sprintf('%s from %s to %s', null === $piece['rail'] ? 'goes straight' : 'off the '.$piece['rail']->value.' rail first', $at($piece['from']), $at($piece['to']));
    }
}
