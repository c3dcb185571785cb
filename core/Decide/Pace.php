<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\Pocket;

/**
 * How a player's visits to the table go in a game: the chances that he goes on with a shot, that one with which he does not is a foul, and
 * that it is a safety; on the average of a kind of visit, and from a position of which his easiest pot is known. They are logistic in his
 * skill, the mean chance of a few plain pots; the coefficients are fitted to simulated duels (benchmarks/values.php, docs/planner.md), so
 * that the values of positions are those of racks that were really played out.
 */
final readonly class Pace
{
    /** Pots by which skill is measured: cut in degrees and distance of the cue ball in metres, for a ball 0.8 m from a corner. */
    private const POTS = [[0, 0.6], [0, 1.2], [20, 0.6], [20, 1.2], [40, 0.6], [40, 1.2]];

    /**
     * By game, for each chance: at even skill, by the logit of skill, and by the balls left to make over 15; of those from a position also
     * by the logit of the easiest pot, for nothing that goes straight, and for no ball on that is seen.
     *
     * @var array<string, array<string, list<float>>>
     */
    public const FITTED = [
        'eight-ball' => [
            'fresh' => [-1.858, 0.616, 4.161],
            'safe' => [-2.608, 0.342, 4.223],
            'hand' => [1.272, 0.560, 2.057],
            'later' => [-1.142, 0.734, 4.155],
            'foul' => [-1.216, -0.315, -1.053],
            'tight' => [1.397, 0.288, -2.337],
            'on' => [-0.845, 0.269, 0.518, 0.796, -1.804, -1.173],
            'foulFrom' => [-1.309, -0.471, -1.149, 0.332, -0.267, 1.902],
            'tightFrom' => [0.394, 0.169, -0.708, -0.160, 2.127, -0.341],
        ],
        'nine-ball' => [
            'fresh' => [-0.224, 0.449, -1.006],
            'safe' => [-1.460, 0.162, -0.272],
            'hand' => [1.979, 0.779, -1.727],
            'later' => [0.380, 0.559, -2.186],
            'foul' => [-2.228, -0.365, 1.491],
            'tight' => [1.517, 0.277, 1.332],
            'on' => [-0.537, 0.241, -0.603, 0.800, -1.432, -1.132],
            'foulFrom' => [-2.118, -0.464, 0.829, 0.193, -0.283, 1.700],
            'tightFrom' => [0.755, 0.083, 1.270, -0.272, 2.347, 0.815],
        ],
        'ten-ball' => [
            'fresh' => [0.224, 0.388, -2.776],
            'safe' => [-2.302, 0.141, 0.326],
            'hand' => [1.328, 0.378, -0.599],
            'later' => [-0.041, 0.541, -1.215],
            'foul' => [-2.086, -0.424, 1.138],
            'tight' => [1.113, 0.515, 1.344],
            'on' => [-0.806, 0.199, -0.706, 0.932, -1.949, -1.624],
            'foulFrom' => [-1.938, -0.464, 0.619, 0.239, -0.465, 1.632],
            'tightFrom' => [0.224, 0.177, 0.928, -0.166, 2.625, 0.813],
        ],
        'straight-pool' => [
            'fresh' => [-0.258, 0.594, 1.249],
            'safe' => [-1.304, 0.199, 0.924],
            'hand' => [-1.830, 0.441, 1.721],
            'later' => [-0.861, 0.738, 3.358],
            'foul' => [-2.037, -0.225, 0.940],
            'tight' => [-0.023, -0.166, -0.823],
            'on' => [-1.218, 0.202, 1.423, 0.678, -0.652, 0.000],
            'foulFrom' => [-2.063, -0.562, 0.518, 0.391, -0.332, 0.000],
            'tightFrom' => [-0.656, 0.125, 0.210, -0.615, 1.530, 0.000],
        ],
    ];

    /** Chances of pots nearer to nought and one than this make no difference. */
    private const SURE = 0.02;

    /** @param array<string, list<float>> $coefficients as in FITTED */
    public function __construct(public float $skill, private array $coefficients)
    {
    }

    /** Cost: a few hundred short simulations. */
    public static function of(ExecutionErrors $player, Game $game, ShotSolver $solver): self
    {
        return new self(self::skill($player, $solver), self::FITTED[$game->value]);
    }

    /** Mean chance of the plain pots, 0 to 1. */
    public static function skill(ExecutionErrors $player, ShotSolver $solver): float
    {
        $table = $solver->equipment->table;
        $corner = $solver->equipment->geometry->at(Pocket::FootLeft);
        $away = 0.8 / hypot(1.0, 0.7);
        $object = Spot::metres($table->length - $away, $table->width() - 0.7 * $away);
        $line = PotModel::find(Layout::empty()->with(Ball::One, $object), Ball::One, Pocket::FootLeft, $solver, $player);
        if (null === $line) {
            return 0.5;
        }
        $towards = $object->directionTo($corner->target($object));
        $sum = 0.0;
        foreach (self::POTS as [$cut, $distance]) {
            $sum += $line->chance($line->ghost->towards($towards + \M_PI + deg2rad($cut), $distance));
        }

        return $sum / \count(self::POTS);
    }

    /**
     * On the average of a kind of visit.
     *
     * @param string $what "fresh", "safe": a visit after the other's miss, or after his safety, goes on with its first shot; "hand": one with
     *                     the ball in hand; "later": with a later shot; "foul", "tight": what does not go on is a foul; is else a safety
     * @param int    $left balls to make
     *
     * @return float chance, 0 to 1
     */
    public function usual(string $what, int $left): float
    {
        return $this->chance($what, [1.0, self::logit($this->skill), $left / 15]);
    }

    /**
     * From a position.
     *
     * @param string $what "on": the shooter goes on; "foulFrom", "tightFrom": what does not is a foul; is else a safety
     * @param int    $left balls to make
     * @param float  $pot  chance of his easiest pot, 0 if nothing goes straight
     * @param bool   $sees any of a ball on
     *
     * @return float chance, 0 to 1
     */
    public function from(string $what, int $left, float $pot, bool $sees): float
    {
        return $this->chance($what, self::features($this->skill, $left, $pot, $sees));
    }

    /** @return list<float> */
    public static function features(float $skill, int $left, float $pot, bool $sees): array
    {
        $isOpen = $pot > 0.0;

        return [1.0, self::logit($skill), $left / 15, $isOpen ? self::logit($pot) : 0.0, $isOpen ? 0.0 : 1.0, $sees ? 0.0 : 1.0];
    }

    public static function logit(float $chance): float
    {
        $chance = max(self::SURE, min(1 - self::SURE, $chance));

        return log($chance / (1 - $chance));
    }

    /** @param list<float> $features */
    private function chance(string $what, array $features): float
    {
        $sum = 0.0;
        foreach ($this->coefficients[$what] as $i => $coefficient) {
            $sum += $coefficient * $features[$i];
        }

        return 1 / (1 + exp(-$sum));
    }
}
