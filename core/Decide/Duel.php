<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;

/** Racks played out between two players, each by what he decides, by the rules of the game. The same seed gives the same rack. */
final class Duel
{
    /** A rack that is not decided after so many shots is a draw. */
    private const SHOTS = 250;

    /** @param array{Duellist, Duellist} $players */
    public function __construct(
        private readonly Rack $rack,
        private readonly PositionValue $value,
        private readonly ShotSolver $solver,
        private readonly array $players,
    ) {
    }

    /**
     * @param int                                                    $begins  0 or 1: who comes to the position of the rack
     * @param (\Closure(Situation, array{Way, WayTally}): void)|null $watched called before each shot
     * @param Way|null                                               $first   what is done first, if that is settled
     *
     * @return float to player 0: 1 won, 0 lost, 0.5 undecided; in straight pool balls, his less the other's
     */
    public function play(int $begins, int $seed, ?\Closure $watched = null, ?Way $first = null): float
    {
        $start = Situation::of($this->rack);
        $situation = new Situation($start->game, $start->layout, $begins, $start->group, $start->inHand, $start->standing);
        $isPoints = $this->rack->game->rules()->countsBalls;
        $random = new Randomness($seed);
        $points = 0.0;
        for ($shot = 1; $shot <= self::SHOTS; ++$shot) {
            $shooter = $situation->shooter;
            $chosen = null !== $first
                ? [$first, new WayTally()]
                : $this->players[$shooter]->choose($situation, ($seed * 48_271 + 104_729 * $shot + 11) & 0x7FFFFFFF);
            $first = null;
            if (null === $chosen) {
                return $isPoints ? $points : 0.5;
            }
            if (null !== $watched) {
                $watched($situation, $chosen);
            }
            if (WayKind::Pass === $chosen[0]->kind) {
                $situation = $situation->passed();
                continue;
            }
            $trials = new WayTrials($situation, $this->rack, $this->value, $this->solver);
            $played = $trials->play($chosen[0], $random);
            if (null === $played) {
                $situation = $trials->afterMiscue();
                continue;
            }
            [$ending, $verdict] = $played;
            $points += (0 === $shooter ? 1 : -1) * $verdict->points;
            if (null !== $verdict->isWon) {
                return $verdict->isWon === (0 === $shooter) ? 1.0 : 0.0;
            }
            $situation = $situation->after($ending, $verdict, $this->rack->equipment);
            if ($isPoints && $situation->layout->without(Ball::Cue)->count() <= 1) {
                return $points;
            }
        }

        return $isPoints ? $points : 0.5;
    }
}
