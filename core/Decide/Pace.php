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
            'fresh' => [-1.038, 0.896, 3.152],
            'safe' => [-2.269, 0.424, 3.142],
            'hand' => [1.871, 1.289, 2.254],
            'later' => [-1.032, 0.738, 4.359],
            'foul' => [-1.521, -0.326, -0.724],
            'tight' => [1.125, -0.035, -1.706],
            'on' => [-0.791, 0.408, -0.163, 0.734, -1.879, -1.280],
            'foulFrom' => [-1.785, -0.438, -0.461, 0.267, -0.273, 2.214],
            'tightFrom' => [0.002, -0.232, 0.536, -0.166, 2.345, 1.385],
        ],
        'nine-ball' => [
            'fresh' => [-0.089, 0.534, -1.581],
            'safe' => [-1.537, 0.270, -0.166],
            'hand' => [1.882, 1.171, -1.538],
            'later' => [0.199, 0.650, -1.923],
            'foul' => [-2.073, -0.366, 1.072],
            'tight' => [1.215, -0.079, 1.123],
            'on' => [-0.626, 0.314, -0.864, 0.789, -1.186, -1.010],
            'foulFrom' => [-2.080, -0.525, 0.567, 0.412, -0.249, 1.811],
            'tightFrom' => [0.439, -0.415, 1.084, -0.274, 2.632, 0.221],
        ],
        'ten-ball' => [
            'fresh' => [-0.375, 0.659, -2.199],
            'safe' => [-2.038, 0.284, -0.996],
            'hand' => [1.910, 1.103, -2.700],
            'later' => [0.372, 0.666, -3.341],
            'foul' => [-2.272, -0.398, 1.191],
            'tight' => [1.108, 0.013, 2.157],
            'on' => [-0.669, 0.473, -2.112, 0.758, -1.962, -1.754],
            'foulFrom' => [-2.263, -0.505, 0.729, 0.295, -0.295, 1.761],
            'tightFrom' => [0.246, -0.338, 2.116, -0.160, 2.530, 0.127],
        ],
        'straight-pool' => [
            'fresh' => [-0.071, 0.766, 1.482],
            'safe' => [-1.470, 0.073, 1.270],
            'hand' => [-1.502, 0.515, 1.016],
            'later' => [-0.980, 0.631, 4.161],
            'foul' => [-1.972, -0.374, 0.900],
            'tight' => [-0.831, -0.043, 0.289],
            'on' => [-1.349, 0.169, 2.217, 0.599, -0.803, 0.000],
            'foulFrom' => [-2.081, -0.733, 0.595, 0.378, -1.091, 0.000],
            'tightFrom' => [-1.449, 0.231, 1.059, -0.590, 2.231, 0.000],
        ],
    ];

    /**
     * What the race alone does not know of a position, by game: the logit of its chance to win is stretched and moved by these, for nought,
     * the logit itself, the logit of the easiest pot, nothing that goes straight, no ball on that is seen, the ball in hand, the share of
     * the own balls that have a free way to a pocket, and of the other's.
     *
     * @var array<string, list<float>>
     */
    public const CORRECTED = [
        'eight-ball' => [-2.154, 0.726, -0.034, -0.099, -0.224, -0.006, 0.990, 1.183],
        'nine-ball' => [-0.221, 0.961, -0.023, 0.000, -0.062, 0.119, 0.078, 0.078],
        'ten-ball' => [-1.027, 0.968, -0.028, -0.001, -0.242, 0.105, 0.521, 0.521],
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

    /** @return list<float> */
    public static function corrections(Look $look, float $ownOpen, float $otherOpen): array
    {
        $isPot = $look->pot > 0.0 && !$look->isInHand;

        return [
            1.0,
            self::logit($look->win),
            $isPot ? self::logit($look->pot) : 0.0,
            $isPot || $look->isInHand ? 0.0 : 1.0,
            $look->sees ? 0.0 : 1.0,
            $look->isInHand ? 1.0 : 0.0,
            $ownOpen,
            $otherOpen,
        ];
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
