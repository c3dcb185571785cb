<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Odds\PocketSides;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Odds\Window;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;

/** The chance of a pot: from simulated tries, with the window that the cue has and the side that misses tend to. */
final readonly class OddsAnalysis
{
    private const TRIES = 300;
    /** Misses to one side are told where they are so many times those to the other. */
    private const TENDS = 1.5;

    public float $chance;
    /** @var array{float, float} at 95 percent */
    public array $interval;
    public int $tries;
    /** @var list<Fact> which way misses tend, and the window */
    public array $facts;
    /** @var list<Fact> what the pocket takes at this speed */
    public array $sides;
    /** Side of the pocket, metres, that goes off a rail first; null where that is not to be had. */
    public ?float $railFirst;

    public function __construct(Rack $rack, SolvedShot $shot, ShotSolver $solver)
    {
        $trials = Trials::of($shot, $solver, $rack->player, self::TRIES);
        $this->chance = $trials->chance();
        $this->interval = $trials->chanceInterval();
        $this->tries = $trials->count;
        $window = Window::of($shot, $solver);
        $this->facts = [
            new Fact('odds.'.self::tendency($trials)),
            new Fact(
                'odds.margin',
                [
                    'left' => \sprintf('%.2f', rad2deg($window->left)),
                    'right' => \sprintf('%.2f', rad2deg($window->right)),
                    'leftMm' => \sprintf('%.0f', 1000 * $window->atPocket[0]),
                    'rightMm' => \sprintf('%.0f', 1000 * $window->atPocket[1]),
                ],
            ),
        ];
        $sides = null === $shot->choice->direction ? PocketSides::of($shot, $solver) : null;
        $rail = $sides?->railFirst();
        $this->sides = array_map(self::side(...), array_values(array_filter([$sides?->straight(), $rail])));
        $this->railFirst = null === $rail ? null : 0.5 * ($rail['from'] + $rail['to']);
    }

    private static function tendency(Trials $trials): string
    {
        return match (true) {
            0 === $trials->thick + $trials->thin => 'noMisses',
            $trials->thick > self::TENDS * $trials->thin => 'tooFull',
            $trials->thin > self::TENDS * $trials->thick => 'tooThin',
            default => 'bothSides',
        };
    }

    /** @param array{from: float, to: float, rail: Rail|null} $piece */
    private static function side(array $piece): Fact
    {
        $at = static fn (float $aside): array => [\sprintf('%.0f', 1000 * abs($aside)), $aside < 0.0 ? 'right' : 'left'];
        [$from, $fromSide] = $at($piece['from']);
        [$to, $toSide] = $at($piece['to']);

        return new Fact(
            null === $piece['rail'] ? 'pocket.straight' : 'pocket.railFirst',
            ['rail' => $piece['rail'], 'from' => $from, 'fromSide' => $fromSide, 'to' => $to, 'toSide' => $toSide],
        );
    }
}
