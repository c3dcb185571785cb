<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Player\Demands;
use ZigLane\Core\Player\Deviations;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\GhostBall;
use ZigLane\Core\Shot\RaisedCue;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Bridge;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Spot;

/**
 * Safeties, found by simulation: every ball on that is seen is met from thin on one side to thin on the other, at several speeds and
 * heights of the tip, and the cue is turned once round for kicks; what each leaves as it is meant is valued, and the best are tried with
 * the player's errors. So nothing is looked for by its shape: hooks, distance, splits and two-way hits are found where they are worth most.
 *
 * Cost: 180 shots of each ball on and 480 kicks, of which at most Effort::valued() are played; then Effort::tried() ways tried.
 */
final readonly class SafetySearch
{
    private const KICK_SPEEDS = [1.6, 2.6];
    private const KICK_HEIGHT = 0.2;
    /** A tap of a ball without a cushion: in straight pool a foul on purpose, m/s. */
    private const TAPS = [0.15, 0.3];
    /** How near two ways of the same contact are taken for one: distance of the cue ball's ends, metres. */
    private const ALIKE = 0.35;

    private Sight $sight;

    public function __construct(
        private Rack $rack,
        private Situation $situation,
        private WayTrials $trials,
        private ShotSolver $solver,
        private ExecutionErrors $player,
    ) {
        $this->sight = new Sight($rack->equipment->balls);
    }

    /**
     * @param Spot|null $place of the cue ball in hand
     *
     * @return list<array{Way, WayTally}> the best first, of different contacts or ends
     */
    public function find(Effort $effort, int $seed, int $most, ?Spot $place = null, WayKind $kind = WayKind::Safety): array
    {
        $layout = $this->situation->placed($place);
        $meant = [];
        $strikes = iterator_to_array($this->strikes($layout, $effort, WayKind::PushOut === $kind), false);
        // Strokes of one direction are twelve, those of a kick two: a step that has no part with them meets all speeds and heights.
        $step = 1;
        // Ends: the step grows.
        while (\count($strikes) / $step > $effort->valued()) {
            $step += 1 === $step % 6 ? 4 : 2;
        }
        for ($i = 0; $i < \count($strikes); $i += $step) {
            $strike = $strikes[$i];
            $way = new Way($kind, null, $strike, null, $place);
            $played = $this->trials->meant($way);
            // What makes a ball and goes on, as in nine-ball, is an attack.
            if (null === $played || $played[1]->goesOn || (null === $played[0]->first && WayKind::PushOut !== $kind)) {
                continue;
            }
            $worth = $this->trials->worth(...$played);
            // A foul is played on purpose where it costs a ball, not where it gives the table away.
            $isForbidden = $played[1]->isFoul() && !$this->rack->game->rules()->countsBalls;
            $meant[] = [$worth - ($isForbidden ? 1.0 : 0.0), $way, $played[0]];
        }
        usort($meant, static fn (array $a, array $b): int => $b[0] <=> $a[0]);
        $tried = [];
        foreach ($this->apart($meant, $effort->tried()) as [, $way, $ending]) {
            $ready = $this->ready($layout, $way, $ending);
            $tried[] = [$ready, $this->trials->tally($ready, $effort->tries(), $seed)];
        }

        return \array_slice($this->trials->ranked($tried), 0, $most);
    }

    /**
     * Hits of a ball on whatever they leave, for who thinks of no safety: legal ones as they are meant, spread over all that there are.
     *
     * @param Spot|null $place of the cue ball in hand
     *
     * @return array{Way, WayTally}|null the one that is legal most often
     */
    public function surestHit(int $seed, ?Spot $place = null): ?array
    {
        $layout = $this->situation->placed($place);
        $legal = [];
        foreach ($this->strikes($layout, Effort::Quick, false) as $strike) {
            $way = new Way(WayKind::Safety, null, $strike, null, $place);
            $played = $this->trials->meant($way);
            if (null !== $played && !$played[1]->isFoul() && null === $played[1]->isWon) {
                $legal[] = [$way, $played[0]];
            }
        }
        $best = null;
        $step = max(1, intdiv(\count($legal), Effort::Quick->tried()));
        for ($i = intdiv($step, 2); $i < \count($legal); $i += $step) {
            $way = $this->ready($layout, ...$legal[$i]);
            $tally = $this->trials->tally($way, Effort::Quick->tries(), $seed);
            if (null === $best || $tally->legal > $best[1]->legal) {
                $best = [$way, $tally];
            }
        }

        return $best;
    }

    /**
     * A way near another, if it can be played: for polishing.
     *
     * @param float $turn of the direction, radians
     */
    public function near(Way $way, float $turn, float $faster, float $side, float $height): ?Way
    {
        $strike = $way->strike;
        if (null === $strike) {
            return null;
        }
        $layout = $this->situation->placed($way->place);
        $near = RaisedCue::strike(
            $layout,
            $this->rack->equipment,
            $strike->direction + $strike->squirt() + $turn,
            $strike->speed * $faster,
            $strike->side + $side,
            $strike->height + $height,
        );
        $other = new Way($way->kind, null, $near, null, $way->place);
        $played = null === $near ? null : $this->trials->meant($other);

        return null === $played ? null : $this->ready($layout, $other, $played[0]);
    }

    /** @return \Generator<Strike> */
    private function strikes(Layout $layout, Effort $effort, bool $isPush): iterable
    {
        if (Opening::is($this->situation, $this->rack->equipment)) {
            yield from Opening::strikes($layout, $this->rack->equipment);

            return;
        }
        $cue = $layout->spot(Ball::Cue);
        $seen = array_values(array_filter(
            $this->situation->on(),
            fn (Ball $ball): bool => $this->sight->seen($layout, $cue, $ball)[0] > 0.0,
        ));
        usort($seen, static fn (Ball $a, Ball $b): int => $cue->distanceTo($layout->spot($a)) <=> $cue->distanceTo($layout->spot($b)));
        $reach = $this->rack->equipment->balls->diameter();
        foreach (\array_slice($seen, 0, $effort->balls()) as $ball) {
            $spot = $layout->spot($ball);
            $distance = max($reach, $cue->distanceTo($spot));
            foreach ($effort->fractions() as $fraction) {
                $direction = $cue->directionTo($spot) + asin(min(1.0, $reach / $distance) * $fraction);
                yield from $this->strokes($layout, $direction, $effort->speeds(), $effort->heights());
            }
        }
        if ($this->rack->game->rules()->countsBalls && Effort::Full === $effort) {
            foreach ($seen as $ball) {
                yield from $this->strokes($layout, $cue->directionTo($layout->spot($ball)), self::TAPS, [0.0]);
            }
        }
        if (Effort::Full === $effort || [] === $seen || $isPush) {
            $step = [] === $seen ? 0.5 * $effort->step() : $effort->step();
            for ($degrees = 0.0; $degrees < 360.0; $degrees += $step) {
                yield from $this->strokes($layout, deg2rad($degrees), self::KICK_SPEEDS, [self::KICK_HEIGHT]);
            }
        }
    }

    /**
     * @param list<float> $speeds
     * @param list<float> $heights
     *
     * @return \Generator<Strike>
     */
    private function strokes(Layout $layout, float $direction, array $speeds, array $heights): iterable
    {
        foreach ($heights as $height) {
            $least = RaisedCue::least($layout, $direction, $height, $this->rack->equipment);
            foreach ($speeds as $speed) {
                $strike = RaisedCue::strike($layout, $this->rack->equipment, $direction, $speed, 0.0, $height, $least);
                if (null !== $strike && !$this->rack->rules->forbidsStroke($strike->elevation, $strike->speed)) {
                    yield $strike;
                }
            }
        }
    }

    /**
     * The best of the ways, of each contact and end only a few.
     *
     * @param list<array{float, Way, Ending}> $meant the best first
     *
     * @return list<array{float, Way, Ending}>
     */
    private function apart(array $meant, int $most): array
    {
        $kept = $counts = [];
        foreach ($meant as $one) {
            $key = self::contact($one[2]);
            $count = $counts[$key] ?? 0;
            if ($count < $most / 4) {
                $counts[$key] = $count + 1;
                $kept[] = $one;
            }
            if (\count($kept) >= $most) {
                break;
            }
        }

        return $kept;
    }

    /** What is met, over which cushions, and in which part of the table the cue ball ends. */
    private static function contact(Ending $ending): string
    {
        $end = $ending->final->has(Ball::Cue) ? $ending->final->spot(Ball::Cue) : null;

        return ($ending->first->value ?? 0).' '.\count($ending->before).' '
            .(null === $end ? '' : floor($end->x / self::ALIKE).' '.floor($end->y / self::ALIKE));
    }

    private function ready(Layout $layout, Way $way, Ending $ending): Way
    {
        \assert(null !== $way->strike);
        $ball = $ending->first ?? $this->situation->on()[0] ?? Ball::One;

        return new Way(
            $way->kind,
            new ShotChoice(
                $ball,
                self::nearest($layout->spot($ball), $this->rack),
                new Stroke(
                    Tip::fractions($way->strike->side, $way->strike->height),
                    $way->strike->speed,
                    rad2deg($way->strike->elevation),
                ),
                0.0,
                $way->strike->direction,
                true,
            ),
            $way->strike,
            $this->errors($layout, $way->strike, $ending),
            $way->place,
        );
    }

    /** The player's errors in such a stroke: of its speed, elevation and bridge, and of what he must judge off cushions. */
    private function errors(Layout $layout, Strike $strike, Ending $ending): Deviations
    {
        $judged = [] === $ending->before
            ? new Demands()
            : ShotDemands::ofKick($this->solver->simulator->play($layout, $strike), $this->player->growth);

        return $this->player->in($strike, new Demands(
            Bridge::isAwkward($layout, $strike->direction, $this->rack->equipment),
            $this->cut($layout, $strike, $ending),
            $judged->judgement,
        ));
    }

    /** Degrees; 0 where the ball is met over cushions. */
    private function cut(Layout $layout, Strike $strike, Ending $ending): float
    {
        if (null === $ending->first || [] !== $ending->before) {
            return 0.0;
        }
        $departure = $strike->direction + $strike->squirt();

        return GhostBall::byHand(
            $layout->spot(Ball::Cue),
            $layout->spot($ending->first),
            $departure,
            $this->rack->equipment->balls,
        )->cutDegrees;
    }

    private static function nearest(Spot $spot, Rack $rack): Pocket
    {
        $best = Pocket::FootLeft;
        $least = \INF;
        foreach (Pocket::cases() as $pocket) {
            $distance = $spot->distanceTo($rack->equipment->geometry->at($pocket)->target($spot));
            if ($distance < $least) {
                [$best, $least] = [$pocket, $distance];
            }
        }

        return $best;
    }
}
