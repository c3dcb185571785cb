<?php

declare(strict_types=1);

namespace ZigLane\Core\Fit;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Demands;
use ZigLane\Core\Player\ErrorGrowth;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Position\Side;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Spot;

/**
 * Draws strokes for a logged shot from a wide proposal, plays each, and holds what comes of it against what was noted: whether the called
 * ball dropped, on which side of the pocket it was missed, whether the cue ball dropped or the tip slipped, and where the cue ball stopped,
 * with the error of measurement.
 *
 * @internal
 */
final class ShotSampler
{
    /** Share of the shots that are noted wrongly, whatever came of them. */
    private const SLIP = 0.01;
    /** Chance that the side of a miss is noted as it was; near the middle it cannot be told. */
    private const SIDE_TOLD = 0.93;
    /** Parts in which strokes are drawn. */
    private const PARTS = 4;
    /**
     * Draws that must agree with a spot for the shape of the next proposal, and for the likelihood; and how much coarser spots are taken.
     */
    private const SHAPED = 6.0;
    private const TELLING = 12.0;
    private const COARSER = [1.0, 1.5, 2.2, 3.3, 5.0, 7.5];
    /** Balls noted so much too near to each other are moved apart, metres. */
    private const MENDED = 0.03;

    /** @var array<int, ShotSolver> by table */
    private array $solvers = [];

    public function __construct(private readonly ErrorGrowth $growth)
    {
    }

    /**
     * @param array{float, float, float, float} $middle of the proposal: errors in degrees, share, mm, mm
     * @param array{float, float, float, float} $wide   its standard deviations for an ordinary shot
     *
     * @return ShotDraws|null null where nothing can be learned: no stroke meant, no layout that can be, nothing noted
     */
    public function draw(LoggedShot $shot, array $middle, array $wide, int $count, float $weight, int $seed): ?ShotDraws
    {
        if (null === $shot->meant || ShotKind::Break === $shot->kind || !$shot->before->has(Ball::Cue) || !self::saysSomething($shot)) {
            return null;
        }
        $solver = $this->solver($shot);
        $before = self::mended($shot->before, $solver);
        if (null === $before) {
            return null;
        }
        [$factors, $judgement] = $this->factors($shot, $before, $solver);
        $spread = [
            hypot($wide[0] * $factors[0], 1.5 * $judgement),
            $wide[1] * $factors[1],
            $wide[2] * $factors[2],
            $wide[3] * $factors[3],
        ];
        $random = new Randomness($seed);
        $rollouts = $solver->simulator->rollouts($before);
        $radius = $shot->equipment->balls->radius;
        $play = $rollouts->play(...);
        $first = Proposal::plain($middle, $spread);
        // Drawn in parts: each but the first about what of those before agrees with what was noted.
        $parts = [[$first, intdiv($count, self::PARTS)]];
        $draws = [];
        for ($part = 0; $part < self::PARTS; ++$part) {
            if ($part > 0) {
                $more = Proposal::about(self::agreeing($draws, $parts, $first, $shot->result->measured, self::SHAPED), $spread);
                $parts[] = [$more ?? $first, intdiv($count, self::PARTS)];
            }
            for ($i = 0; $i < $parts[$part][1]; ++$i) {
                $error = $parts[$part][0]->draw($random);
                $agrees = $this->likelihood($shot, self::struck($shot->meant, $error, $radius), $play);
                if (null !== $agrees) {
                    $draws[] = [$error, $agrees[0], $agrees[1]];
                }
            }
        }
        $drawn = array_sum(array_column($parts, 1));
        $kept = [];
        foreach (self::agreeing($draws, $parts, null, $shot->result->measured, self::TELLING) as [$error, $agrees]) {
            $kept[] = [$error[0], $error[1], $error[2], $error[3], (1 - self::SLIP) * $agrees];
        }
        $table = $shot->equipment->table;

        return new ShotDraws(
            $weight,
            $drawn,
            $factors,
            $judgement,
            $kept,
            self::SLIP * ($shot->result->after->has(Ball::Cue) && !$shot->result->scratch ? 1 / ($table->length * $table->width()) : 0.5),
        );
    }

    /**
     * Draws with the likelihood of what was noted divided by the density that they were drawn from. Where too few agree with a spot, as
     * after many cushions, it is taken to be noted less exactly, until enough do: a few that agree by chance would say more than they know.
     *
     * @param list<array{array{float, float, float, float}, float, float|null}> $draws    errors, likelihood without the spot, and the
     *                                                                                    square of the distance from it
     * @param non-empty-list<array{Proposal, int}>                              $parts
     * @param Proposal|null                                                     $as       as if they all came from this one; null: as they
     *                                                                                    are
     * @param float                                                             $measured metres
     * @param float                                                             $enough   draws that must count (Kish's effective number)
     *
     * @return list<array{array{float, float, float, float}, float}>
     */
    private static function agreeing(array $draws, array $parts, ?Proposal $as, float $measured, float $enough): array
    {
        $shares = array_map(static fn (array $draw): float => $draw[1] * (null === $as ? 1.0 : $as->density($draw[0]))
            / self::density($draw[0], $parts), $draws);
        $agreeing = [];
        foreach (self::COARSER as $coarser) {
            $variance = ($coarser * $measured) ** 2;
            $agreeing = [];
            $sum = $squares = 0.0;
            foreach ($draws as $i => [$error, , $away]) {
                $spot = null === $away ? 1.0 : ($away > 40.0 * $variance ? 0.0 : exp(-0.5 * $away / $variance) / (2 * \M_PI * $variance));
                $weight = $shares[$i] * $spot;
                if ($weight > 0.0) {
                    $agreeing[] = [$error, $weight];
                    $sum += $weight;
                    $squares += $weight * $weight;
                }
            }
            if ($squares > 0.0 && $sum * $sum / $squares >= $enough) {
                break;
            }
        }

        return $agreeing;
    }

    /**
     * The density of all parts together (the balance heuristic; Veach and Guibas, SIGGRAPH 1995).
     *
     * @param array{float, float, float, float}    $error
     * @param non-empty-list<array{Proposal, int}> $parts
     */
    private static function density(array $error, array $parts): float
    {
        $sum = $all = 0.0;
        foreach ($parts as [$proposal, $count]) {
            $sum += $count * $proposal->density($error);
            $all += $count;
        }

        return $sum / $all;
    }

    private static function saysSomething(LoggedShot $shot): bool
    {
        return $shot->result->miscue || null !== $shot->result->isMade || $shot->result->scratch || $shot->result->after->has(Ball::Cue);
    }

    /**
     * The stroke with errors; null for a miscue.
     *
     * @param array{float, float, float, float} $error degrees, share, mm, mm
     */
    private static function struck(Strike $meant, array $error, float $radius): ?Strike
    {
        try {
            return Strike::degrees(
                rad2deg($meant->direction) + $error[0],
                min(Strike::MAX_SPEED, max(0.01, $meant->speed * (1 + $error[1]))),
                $meant->side + 0.001 * $error[2] / $radius,
                $meant->height + 0.001 * $error[3] / $radius,
                rad2deg($meant->elevation),
                $meant->endMassRatio,
            );
        } catch (CoreError) {
            return null;
        }
    }

    /**
     * How likely it is that what comes of a stroke is noted as it was, but for the spot of the cue ball, and how far that is off.
     *
     * @param \Closure(Strike): Ending $play
     *
     * @return array{float, float|null}|null the likelihood, and the square of the distance in metres, null where no spot was noted; null
     *                                       where it cannot be
     */
    private function likelihood(LoggedShot $shot, ?Strike $strike, \Closure $play): ?array
    {
        $result = $shot->result;
        if (null === $strike || $result->miscue) {
            return null === $strike && $result->miscue ? [1.0, null] : null;
        }
        try {
            $ending = $play($strike);
        } catch (CoreError) {
            return null;
        }
        if ($ending->isScratch() !== $result->scratch) {
            return null;
        }
        if (null !== $result->in && ($ending->pocketed[Ball::Cue->value] ?? null) !== $result->in) {
            return null;
        }
        $likelihood = 1.0;
        if (null !== $result->isMade && null !== $shot->ball) {
            $isMade = null === $shot->pocket ? null !== $ending->pocketOf($shot->ball) : $ending->pocketOf($shot->ball) === $shot->pocket;
            if ($isMade !== $result->isMade) {
                return null;
            }
            if (null !== $result->missed && null !== $shot->meant && ShotKind::Pot === $shot->kind) {
                // A cue ball that goes to the left of its line sends the object ball to the right.
                $isLeft = $strike->direction + $strike->squirt() > $shot->meant->direction + $shot->meant->squirt();
                $likelihood *= ($isLeft ? Side::Right : Side::Left) === $result->missed ? self::SIDE_TOLD : 1 - self::SIDE_TOLD;
            }
        }
        if ($result->scratch || !$result->after->has(Ball::Cue)) {
            return [$likelihood, null];
        }
        $seen = $result->after->spot(Ball::Cue);
        $there = $ending->final->spot(Ball::Cue);

        return [$likelihood, ($seen->x - $there->x) ** 2 + ($seen->y - $there->y) ** 2];
    }

    /** @return array{array{float, float, float, float}, float} by what the ordinary deviations grow, and what is misjudged, degrees */
    private function factors(LoggedShot $shot, Layout $before, ShotSolver $solver): array
    {
        \assert(null !== $shot->meant);
        $demands = new Demands();
        if (null !== $shot->ball && null !== $shot->pocket && $before->has($shot->ball)) {
            $stroke = new Stroke(
                Tip::fractions($shot->meant->side, $shot->meant->height),
                $shot->meant->speed,
                rad2deg($shot->meant->elevation),
            );
            $choice = new ShotChoice($shot->ball, $shot->pocket, $stroke, 0.0, $shot->meant->direction);
            try {
                $demands = ShotKind::Pot === $shot->kind
                    ? ShotDemands::ofAimed(
                        $before,
                        $solver->aimed($before, new ShotChoice($shot->ball, $shot->pocket, $stroke)),
                        $shot->equipment,
                    )
                    : ShotDemands::ofSolved($solver->solve($before, $choice), $shot->equipment, $this->growth);
            } catch (CoreError) {
                // No straight way to the pocket: an ordinary shot.
            }
        }
        $grown = (new ExecutionErrors(1.0, 1.0, 1.0, 1.0, $this->growth))->in(
            $shot->meant,
            new Demands($demands->hasAwkwardBridge, $demands->cut),
        );

        return [[$grown->aim, $grown->speed, $grown->tipSide, $grown->tipHeight], $demands->judgement];
    }

    private function solver(LoggedShot $shot): ShotSolver
    {
        $key = spl_object_id($shot->equipment);

        return $this->solvers[$key] ??= new ShotSolver($shot->equipment);
    }

    /**
     * The balls as they must have lain: those noted a little into each other or off the cloth moved apart; null where that does not help.
     */
    private static function mended(Layout $noted, ShotSolver $solver): ?Layout
    {
        $rules = new LayoutRules($solver->equipment);
        $table = $solver->equipment->table;
        $radius = $solver->equipment->balls->radius;
        $layout = $noted;
        for ($round = 0; $round < 20 && [] !== $rules->faults($layout); ++$round) {
            foreach ($layout->balls() as $ball) {
                $spot = $layout->spot($ball);
                $layout = $layout->with($ball, Spot::metres(
                    max($radius, min($table->length - $radius, $spot->x)),
                    max($radius, min($table->width() - $radius, $spot->y)),
                ));
            }
            $balls = $layout->balls();
            foreach ($balls as $i => $one) {
                foreach (\array_slice($balls, $i + 1) as $other) {
                    [$a, $b] = [$layout->spot($one), $layout->spot($other)];
                    $gap = $a->distanceTo($b) - 2 * $radius;
                    if ($gap < 0.0) {
                        $way = $gap > -2 * $radius + 1e-9 ? $a->directionTo($b) : 0.0;
                        $layout = $layout->with($one, $a->towards($way + \M_PI, 0.5 * -$gap + 1e-5))
                            ->with($other, $b->towards($way, 0.5 * -$gap + 1e-5));
                    }
                }
            }
        }
        if ([] !== $rules->faults($layout)) {
            return null;
        }
        foreach ($noted->balls() as $ball) {
            if ($noted->spot($ball)->distanceTo($layout->spot($ball)) > self::MENDED) {
                return null;
            }
        }

        return $layout;
    }
}
