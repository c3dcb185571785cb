<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\Spot;

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
            'fresh' => [-0.982, 0.929, 2.583],
            'safe' => [-2.201, 0.420, 3.023],
            'hand' => [1.790, 1.078, 1.376],
            'later' => [-1.132, 0.726, 4.494],
            'foul' => [-1.506, -0.311, -1.321],
            'tight' => [1.249, -0.040, -1.773],
            'on' => [-0.789, 0.398, -0.239, 0.721, -1.745, -1.186],
            'foulFrom' => [-1.642, -0.431, -1.506, 0.330, -0.511, 2.511],
            'tightFrom' => [0.089, -0.214, 0.592, -0.163, 2.352, 0.726],
        ],
        'nine-ball' => [
            'fresh' => [-0.258, 0.567, -1.628],
            'safe' => [-1.663, 0.209, -0.625],
            'hand' => [2.781, 2.207, -0.595],
            'later' => [-0.230, 0.688, -0.720],
            'foul' => [-2.059, -0.376, 1.149],
            'tight' => [1.307, -0.092, 0.430],
            'on' => [-0.687, 0.334, -1.255, 0.761, -1.586, -0.875],
            'foulFrom' => [-2.042, -0.557, 0.499, 0.465, -0.204, 1.705],
            'tightFrom' => [0.414, -0.450, 0.779, -0.364, 2.733, 0.036],
        ],
        'ten-ball' => [
            'fresh' => [-0.407, 0.660, -1.907],
            'safe' => [-1.901, 0.334, -1.724],
            'hand' => [1.733, 0.885, -3.016],
            'later' => [0.374, 0.665, -3.729],
            'foul' => [-2.378, -0.383, 1.386],
            'tight' => [0.956, -0.002, 2.886],
            'on' => [-0.524, 0.494, -2.623, 0.770, -1.911, -1.721],
            'foulFrom' => [-2.372, -0.497, 0.865, 0.285, -0.195, 1.683],
            'tightFrom' => [-0.095, -0.421, 3.106, -0.122, 2.839, 0.175],
        ],
        'straight-pool' => [
            'fresh' => [-0.030, 0.785, 1.338],
            'safe' => [-1.571, 0.050, 1.885],
            'hand' => [-1.041, 0.456, 0.096],
            'later' => [-0.957, 0.645, 3.971],
            'foul' => [-1.915, -0.320, 0.942],
            'tight' => [-0.731, -0.031, -0.287],
            'on' => [-1.317, 0.200, 2.123, 0.569, -1.165, 0.000],
            'foulFrom' => [-1.976, -0.643, 0.536, 0.362, -1.307, 0.000],
            'tightFrom' => [-1.520, 0.314, 0.956, -0.679, 2.518, 0.000],
        ],
    ];

    /**
     * What the race alone does not know of a position, by game: the logit of its chance to win is stretched and moved by these, for nought,
     * the logit itself, the logit of the easiest pot, nothing that goes straight, no ball on that is seen, the ball in hand, the share of
     * the own balls that have a free way to a pocket, and of the other's; then pot, unseen and hand once more by the balls left over 15.
     *
     * @var array<string, list<float>>
     */
    private const CORRECTED = [
        'eight-ball' => [-2.166, 0.721, -0.047, -0.098, -0.066, 0.420, 0.992, 1.191, 0.052, -1.123, -1.631],
        'nine-ball' => [-1.096, 0.958, -0.029, 0.009, -0.484, 0.148, 0.537, 0.537, 0.014, 0.854, -0.108],
        'ten-ball' => [-1.096, 0.958, -0.029, 0.009, -0.484, 0.148, 0.537, 0.537, 0.014, 0.854, -0.108],
    ];

    /** Chances of pots nearer to nought and one than this make no difference. */
    private const SURE = 0.02;

    /** @param array<string, list<float>> $coefficients as in FITTED */
    public function __construct(public float $skill, private array $coefficients)
    {
    }

    /** @return list<float> as in CORRECTED */
    public static function corrected(Game $game): array
    {
        return self::CORRECTED[self::like($game)];
    }

    /** The kind of game by whose fitted numbers a game is played; of the lowest ball there are shorter and longer ones. */
    private static function like(Game $game): string
    {
        $rules = $game->rules();

        return match (true) {
            $rules->countsBalls => 'straight-pool',
            $rules->hasGroups => 'eight-ball',
            default => $rules->highest > 9 ? 'ten-ball' : 'nine-ball',
        };
    }

    /** Cost: a few hundred short simulations. */
    public static function of(ExecutionErrors $player, Game $game, ShotSolver $solver): self
    {
        return new self(self::skill($player, $solver), self::FITTED[self::like($game)]);
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
     * @param string $what "fresh", "safe": a visit after the other's miss, or after his safety, goes on with its first shot; "hand": one
     *                     with the ball in hand; "later": with a later shot; "foul", "tight": what does not go on is a foul, or a safety
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
    public static function corrections(Look $look, int $left, float $ownOpen, float $otherOpen): array
    {
        $isPot = $look->pot > 0.0 && !$look->isInHand;
        $pot = $isPot ? self::logit($look->pot) : 0.0;
        $many = $left / 15;

        return [
            1.0,
            self::logit($look->win),
            $pot,
            $isPot || $look->isInHand ? 0.0 : 1.0,
            $look->sees ? 0.0 : 1.0,
            $look->isInHand ? 1.0 : 0.0,
            $ownOpen,
            $otherOpen,
            $many * $pot,
            $look->sees ? 0.0 : $many,
            $look->isInHand ? $many : 0.0,
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
