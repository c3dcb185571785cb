<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Motion\Event;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\Rollouts;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;

/**
 * Combinations, caroms, banks and kicks that are real chances. The cue is turned once round in small steps, each direction played
 * among all balls; neighbouring directions that make the same ball over the same first contact are one window. The middle of
 * each window that is wide enough for the player is played with his errors. So nothing is looked for by its shape: what the
 * simulation makes is found, and named from its contacts afterwards.
 *
 * Cost: 2 pi / STEP shots for each stroke, and TRIES for each window.
 */
final readonly class IndirectSearch
{
    /** Step of the direction, degrees: a window narrower than two steps may be missed; few players make half of those. */
    private const STEP = 0.15;
    /** Strokes: speed m/s and height of the tip. */
    private const STROKES = [[1.8, 0.2], [3.2, 0.1]];
    private const TRIES = 100;
    /** Windows are tried in full from the widest on, at most so many. */
    private const TRIED = 24;
    /** Odds from which a shot is a real chance. */
    public const REAL = 0.1;

    private ShotSolver $solver;

    /** @param float $step of the direction of the cue, degrees */
    public function __construct(private Rack $rack, private float $step = self::STEP, ?ShotSolver $solver = null)
    {
        $this->solver = $solver ?? new ShotSolver($rack->equipment);
    }

    /**
     * @param list<Ball>|null $first the balls that may be met first; null: any
     * @param list<Ball>|null $made  the balls that count when they are made; null: any
     *
     * @return list<IndirectShot> the best odds first, one for each ball, pocket and kind
     */
    public function find(?array $first = null, ?array $made = null, int $seed = 1): array
    {
        $layout = $this->rack->layout;
        if (!$layout->has(Ball::Cue)) {
            return [];
        }
        $rollouts = $this->solver->simulator->rollouts($layout);
        $best = [];
        $tried = 0;
        foreach ($this->widest($rollouts, self::STROKES, $first, $made) as [$choice, $from, $to]) {
            if ($tried >= self::TRIED) {
                break;
            }
            $way = $this->named($choice);
            if (null === $way) {
                continue;
            }
            ++$tried;
            $odds = $this->odds($rollouts, $way->shot, $first, $seed);
            $key = $choice->ball->value.$choice->pocket->value.$way->kind->value;
            if ($odds >= self::REAL && $odds > ($best[$key]->odds ?? 0.0)) {
                $best[$key] = new IndirectShot($way, $to - $from, $odds, self::TRIES);
            }
        }
        usort($best, static fn (IndirectShot $a, IndirectShot $b): int => $b->odds <=> $a->odds);

        return $best;
    }

    /**
     * The widest windows of one stroke, without names or odds: for a planner that tries them itself.
     *
     * @param list<Ball> $first  the balls that may be met first
     * @param list<Ball> $made   the balls that count when they are made
     * @param bool       $isFirm whether a firm stroke is looked with too
     *
     * @return list<ShotChoice> aimed at the middle of each
     */
    public function windows(Layout $layout, array $first, array $made, int $count, bool $isFirm = false): array
    {
        return array_column(
            \array_slice(
                $this->widest($this->solver->simulator->rollouts($layout), \array_slice(self::STROKES, 0, $isFirm ? 2 : 1), $first, $made),
                0,
                $count,
            ),
            0,
        );
    }

    /**
     * @param list<array{float, float}> $strokes speed m/s and height of the tip
     * @param list<Ball>|null           $first
     * @param list<Ball>|null           $made
     *
     * @return list<array{ShotChoice, float, float}> aimed at the middle of each window, with its edges, radians; the widest first
     */
    private function widest(Rollouts $rollouts, array $strokes, ?array $first, ?array $made): array
    {
        $windows = [];
        foreach ($strokes as [$speed, $height]) {
            $stroke = new Stroke(Tip::fractions(0.0, $height), $speed, 2.0);
            foreach ($this->open(
                $rollouts,
                $stroke->strike(0.0, $this->rack->equipment->cue->endMassRatio),
                $first,
            ) as [$ball, $pocket, $from, $to]) {
                if (null === $made || \in_array($ball, $made, true)) {
                    $windows[] = [new ShotChoice($ball, $pocket, $stroke, 0.0, 0.5 * ($from + $to)), $from, $to];
                }
            }
        }
        usort($windows, static fn (array $a, array $b): int => $b[2] - $b[1] <=> $a[2] - $a[1]);

        return $windows;
    }

    /**
     * @param list<Ball>|null $first
     *
     * @return list<array{Ball, Pocket, float, float}> ball made, pocket, and the directions from and to, radians
     */
    private function open(Rollouts $rollouts, Strike $strike, ?array $first): array
    {
        $steps = (int) round(360 / $this->step);
        $step = 2 * \M_PI / $steps;
        $least = max(1, (int) floor(deg2rad($this->rack->player->aim) * 0.5 / $step));
        $open = $found = [];
        for ($i = 0; $i <= $steps; ++$i) {
            $made = [];
            if ($i < $steps) {
                $ending = $rollouts->play($strike->withDirection($i * $step));
                if (null !== $ending->first && !$ending->isScratch() && (null === $first || \in_array($ending->first, $first, true))) {
                    foreach ($ending->pocketed as $number => $pocket) {
                        $made[$number.$pocket->value.$ending->first->value] = [Ball::from($number), $pocket];
                    }
                }
            }
            foreach ($open as $key => [$ball, $pocket, $since]) {
                if (!isset($made[$key])) {
                    if ($i - $since >= $least) {
                        $found[] = [$ball, $pocket, ($since - 0.5) * $step, ($i - 0.5) * $step];
                    }
                    unset($open[$key]);
                }
            }
            foreach ($made as $key => [$ball, $pocket]) {
                $open[$key] ??= [$ball, $pocket, $i];
            }
        }

        return $found;
    }

    /** How a shot makes its ball other than straight; null for a ball that is made straight, or not in the middle of its window. */
    private function named(ShotChoice $choice): ?IndirectWay
    {
        return self::wayOf($this->solver->solve($this->rack->layout, $choice));
    }

    /** How a shot that goes on makes its ball, read from its contacts; null for one that is made straight, or not made. */
    public static function wayOf(SolvedShot $shot): ?IndirectWay
    {
        if (!$shot->goesOn()) {
            return null;
        }
        $ball = $shot->choice->ball;
        $contact = $shot->outcome->firstContact();
        $kicked = self::rails(array_filter(
            $shot->cushions(),
            static fn (Event $event): bool => null !== $contact && $event->time < $contact->time,
        ));
        $banked = self::rails($shot->outcome->eventsOf($ball, EventKind::Cushion));
        [$over, $byCueBall] = self::chain($shot, $ball);
        $kind = match (true) {
            [] !== $kicked => IndirectKind::Kick,
            [] !== $banked => IndirectKind::Bank,
            [] === $over => null,
            $byCueBall => IndirectKind::Carom,
            default => IndirectKind::Combination,
        };

        return null === $kind ? null : new IndirectWay($shot, $kind, $over, [] !== $kicked ? $kicked : $banked);
    }

    /**
     * @param array<Event> $events
     *
     * @return list<\ZigLane\Core\Name\Rail>
     */
    private static function rails(array $events): array
    {
        return array_values(array_filter(array_map(
            static fn (Event $event): ?\ZigLane\Core\Name\Rail => EventKind::Cushion === $event->kind ? $event->rail : null,
            $events,
        )));
    }

    /**
     * The balls from the cue ball's first contact to the one that is made, and whether the cue ball itself struck that one.
     *
     * @return array{list<Ball>, bool}
     */
    private static function chain(SolvedShot $shot, Ball $made): array
    {
        // By whom each ball was first set moving.
        $by = [];
        foreach ($shot->outcome->events as $event) {
            if (EventKind::Ball !== $event->kind || null === $event->other) {
                continue;
            }
            foreach ([[$event->ball, $event->other], [$event->other, $event->ball]] as [$one, $other]) {
                $moves = Ball::Cue === $one || isset($by[$one->value]);
                if ($moves && Ball::Cue !== $other && !isset($by[$other->value])) {
                    $by[$other->value] = $one;
                    break;
                }
            }
        }
        $striker = $by[$made->value] ?? Ball::Cue;
        if (Ball::Cue === $striker) {
            $first = $shot->outcome->firstContact();
            $met = null === $first ? $made : (Ball::Cue === $first->ball ? $first->other ?? $made : $first->ball);

            return $met === $made ? [[], true] : [[$met], true];
        }
        $over = [];
        // Ends: at fifteen balls.
        for ($ball = $striker; Ball::Cue !== $ball && \count($over) < 15; $ball = $by[$ball->value] ?? Ball::Cue) {
            array_unshift($over, $ball);
        }

        return [$over, false];
    }

    /** @param list<Ball>|null $first */
    private function odds(Rollouts $rollouts, SolvedShot $shot, ?array $first, int $seed): float
    {
        $random = new Randomness($seed);
        $made = 0;
        $player = $this->rack->player;
        $errors = $player->in($shot->strike, ShotDemands::ofSolved($shot, $this->rack->equipment, $player->growth));
        for ($try = 0; $try < self::TRIES; ++$try) {
            try {
                $ending = $rollouts->play($errors->disturb($shot->strike, $random, $this->rack->equipment->balls->radius));
            } catch (IllegalStroke) {
                continue;
            }
            $legal = null !== $ending->first && (null === $first || \in_array($ending->first, $first, true));
            $made += $legal && !$ending->isScratch() && $ending->pocketOf($shot->choice->ball) === $shot->choice->pocket ? 1 : 0;
        }

        return $made / self::TRIES;
    }
}
