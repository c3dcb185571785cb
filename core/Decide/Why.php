<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\Verdict;

/** Why an option is good or bad, in facts with their numbers, each told only where the tries or the shot as meant bear it out. */
final readonly class Why
{
    /** Shares of tries from which something is told. */
    private const OFTEN = 0.3;
    private const RISK = 0.1;
    /** A pot below which the opponent is said to have little. */
    private const LITTLE = 0.35;
    /** Far, metres: more than half a table. */
    private const FAR = 1.4;
    /** A cue ball nearer to a rail than this lies on it for a player, metres. */
    private const RAIL = 0.03;
    /** Ways of both balls count as equal when the longer is at most so much longer. */
    private const EVEN = 1.35;
    /** And are ways at all from here on, metres. */
    private const WAY = 0.5;
    /** Balls that are named as hiding the cue ball, the nearest first. */
    private const NAMED = 2;
    /** What the shot leaves as meant is told where it is so near to what the tries leave on average. */
    private const TYPICAL = 0.15;

    private OpenBalls $open;

    public function __construct(private Rack $rack, private Situation $situation, private PositionValue $value)
    {
        $this->open = $value->open;
    }

    /** @return list<Fact> the most telling first */
    public function of(Judged $judged): array
    {
        $tally = $judged->tally;
        $facts = WayKind::Attack === $judged->way->kind ? $this->attack($judged) : $this->leave($judged);
        if (null !== $judged->meant) {
            array_push($facts, ...$this->asMeant($judged, $judged->meant));
        }
        if ($tally->share($tally->soldOut) >= self::OFTEN) {
            $facts[] = new Fact('decide.sellsOut', ['chanceShare' => $tally->share($tally->soldOut)]);
        }
        if ($tally->share($tally->scratches) >= self::RISK) {
            $facts[] = new Fact('decide.scratches', ['chanceShare' => $tally->share($tally->scratches)]);
        }
        if ($tally->share($tally->fouls - $tally->scratches) >= self::RISK) {
            $facts[] = new Fact('decide.fouls', ['chanceShare' => $tally->share($tally->fouls - $tally->scratches)]);
        }

        return $facts;
    }

    /** @return list<Fact> */
    private function attack(Judged $judged): array
    {
        $tally = $judged->tally;
        $leaves = $judged->missLeaves();
        $facts = [];
        if (null !== $leaves) {
            $facts[] = new Fact($judged->isTwoWay() ? 'decide.twoWay' : 'decide.missLeaves', ['chanceShare' => $leaves]);
        }
        if ($tally->made > 0 && $tally->position < 0.5 * $tally->made) {
            $facts[] = new Fact('decide.littleAfter', ['chanceShare' => $tally->position / $tally->made]);
        }

        return $facts;
    }

    /** @return list<Fact> what the opponent finds */
    private function leave(Judged $judged): array
    {
        $facts = [];
        if (($judged->hook() ?? 0.0) >= self::OFTEN) {
            $facts[] = new Fact('decide.hides', ['chanceShare' => (float) $judged->hook()]);
        }
        if (null !== $judged->opponentPot() && $judged->opponentPot() <= self::LITTLE) {
            $facts[] = new Fact('decide.littleToShoot', ['chanceShare' => $judged->opponentPot()]);
        }

        return $facts;
    }

    /** @return list<Fact> what is seen of the shot when nothing goes wrong */
    private function asMeant(Judged $judged, Ending $ending): array
    {
        $way = $judged->way;
        $before = $this->situation->placed($way->place);
        $facts = [];
        if (WayKind::Attack !== $way->kind) {
            $rails = array_values(array_filter($ending->before, static fn (Rail|Pocket $met): bool => $met instanceof Rail));
            if ([] !== $rails) {
                $facts[] = new Fact('decide.kicks', ['rails' => $rails]);
            }
            $isOpening = Opening::is($this->situation, $this->rack->equipment);
            $verdict = $isOpening
                ? Opening::judge($ending)
                : Referee::of($this->rack)->judge($before, $this->situation->turn(), $ending, null, null, $way->strike);
            array_push(
                $facts,
                ...$this->ruled($way, $ending, $verdict, $isOpening),
                ...($isOpening ? [] : $this->faced($judged, $ending, $verdict)),
                ...$this->apart($before, $ending),
                ...$this->onRail($ending),
            );
        }

        return [...$facts, ...$this->own($before, $ending), ...$this->nextTurn($ending)];
    }

    /** @return list<Fact> an opening break, and a foul that is meant */
    private function ruled(Way $way, Ending $ending, Verdict $verdict, bool $isOpening): array
    {
        if ($isOpening) {
            $driven = array_unique(array_map(
                static fn (array $one): int => $one[0]->value,
                array_filter($ending->driven, static fn (array $one): bool => Ball::Cue !== $one[0]),
            ));

            return $verdict->isFoul() ? [] : [new Fact('decide.opening', ['count' => \count($driven)])];
        }
        if (WayKind::Safety !== $way->kind || !$verdict->isFoul()) {
            return [];
        }

        return [$this->situation->game->rules()->hasGroups
            ? new Fact('decide.onPurpose')
            : new Fact('decide.onPurposeInARow', ['count' => $this->situation->turn()->foulsInARow + 1])];
    }

    /** @return list<Fact> what he would shoot, or what the cue ball lies behind */
    private function faced(Judged $judged, Ending $ending, Verdict $verdict): array
    {
        $isSafe = WayKind::Safety === $judged->way->kind && $ending->final->has(Ball::Cue);
        if (!$isSafe || $verdict->isFoul() || null !== $verdict->isWon) {
            return [];
        }
        $tally = $judged->tally;
        if (!$verdict->goesOn && $tally->share($tally->dropped) >= self::OFTEN) {
            // The ball goes down and the turn with it: only where the safety was called.
            return [new Fact('decide.callIt', ['chanceShare' => $tally->share($tally->dropped)])];
        }
        $next = $this->situation->after($ending, $verdict, $this->rack->equipment);
        $blockers = $this->blockers($next);
        if (null !== $blockers) {
            return [] === $blockers ? [] : [new Fact('decide.behind', ['balls' => $blockers])];
        }
        $pot = $this->value->surest($next);
        // Where the tries leave something else on average, the shot as meant is not what he will find.
        if (abs(($pot[2] ?? 0.0) - ($judged->opponentPot() ?? 0.0)) > self::TYPICAL) {
            return [];
        }

        return [null === $pot
            ? new Fact('decide.nothingStraight')
            : new Fact('decide.hisBest', ['ball' => $pot[0], 'pocket' => $pot[1], 'chanceShare' => $pot[2]])];
    }

    /** @return list<Ball>|null the balls that hide all that he may meet first; null where he sees one of them */
    private function blockers(Situation $next): ?array
    {
        $sight = new Sight($this->rack->equipment->balls);
        $cue = $next->layout->spot(Ball::Cue);
        $hiding = [];
        foreach ($next->on() as $ball) {
            [$share, $blockers] = $sight->seen($next->layout, $cue, $ball);
            if ($share > 0.0) {
                return null;
            }
            foreach ($blockers as $one) {
                $hiding[$one->value] = $one;
            }
        }
        $away = static fn (Ball $ball): float => $cue->distanceTo($next->layout->spot($ball));
        usort($hiding, static fn (Ball $a, Ball $b): int => $away($a) <=> $away($b));

        return \array_slice($hiding, 0, self::NAMED);
    }

    /** @return list<Fact> how many of the shooter's own balls lie open for his next turn: in eight-ball, where they are his alone */
    private function nextTurn(Ending $ending): array
    {
        $group = $this->situation->group ?? Group::Open;
        $own = array_values(array_filter(
            $ending->final->balls(),
            static fn (Ball $ball): bool => Ball::Eight === $ball || $group->has($ball),
        ));
        if (!$this->situation->game->rules()->hasGroups || Group::Open === $group || [] === $own) {
            return [];
        }
        $open = array_filter($own, fn (Ball $ball): bool => $this->open->pockets($ending->final, $ball)->valid());

        return [1 === \count($own)
            ? new Fact([] === $open ? 'decide.lastShut' : 'decide.lastOpen', ['ball' => $own[0]])
            : new Fact('decide.ownOpen', ['open' => \count($open), 'count' => \count($own)])];
    }

    /** @return list<Fact> distance, and an even split of both balls */
    private function apart(Layout $before, Ending $ending): array
    {
        if (!$ending->final->has(Ball::Cue) || null === $ending->first) {
            return [];
        }
        $cue = $ending->final->spot(Ball::Cue);
        $facts = [];
        $nearest = null;
        $least = \INF;
        foreach ($this->opponents($ending->final) as $ball) {
            $distance = $cue->distanceTo($ending->final->spot($ball));
            if ($distance < $least) {
                [$least, $nearest] = [$distance, $ball];
            }
        }
        if (null !== $nearest && $least >= self::FAR) {
            $facts[] = new Fact('decide.far', ['ball' => $nearest, 'byMetres' => $least]);
        }
        if ($ending->final->has($ending->first)) {
            $mine = $before->spot(Ball::Cue)->distanceTo($cue);
            $his = $before->spot($ending->first)->distanceTo($ending->final->spot($ending->first));
            if (min($mine, $his) >= self::WAY && max($mine, $his) <= self::EVEN * min($mine, $his)) {
                $facts[] = new Fact('decide.splits', ['ball' => $ending->first]);
            }
        }

        return $facts;
    }

    /** @return list<Ball> that the opponent may meet first */
    private function opponents(Layout $layout): array
    {
        return (new Situation($this->situation->game, $layout, 1, $this->situation->group?->other()))->on();
    }

    /** @return list<Fact> */
    private function onRail(Ending $ending): array
    {
        if (!$ending->final->has(Ball::Cue)) {
            return [];
        }
        $cue = $ending->final->spot(Ball::Cue);
        foreach (Rail::cases() as $rail) {
            $distance = $this->rack->equipment->table->fromRail($rail, $cue->x, $cue->y);
            if ($distance - $this->rack->equipment->balls->radius < self::RAIL) {
                return [new Fact('decide.onRail', ['rail' => $rail])];
            }
        }

        return [];
    }

    /** @return list<Fact> what it does to the balls that the shooter has still to make, in eight-ball and to his next in the others */
    private function own(Layout $before, Ending $ending): array
    {
        $facts = [];
        foreach ($this->situation->shootable() as $ball) {
            if (!$ending->final->has($ball) || !\in_array($ball, $ending->struck, true)) {
                continue;
            }
            [$had, $has] = [$this->open->pockets($before, $ball)->valid(), $this->open->pockets($ending->final, $ball)->valid()];
            if (!$had && $has && $this->situation->game->rules()->hasGroups) {
                $facts[] = new Fact('decide.freesOwn', ['ball' => $ball]);
            } elseif ($had && !$has) {
                $facts[] = new Fact(
                    $this->situation->game->rules()->hasGroups ? 'decide.tiesOwn' : 'decide.tiesUp',
                    ['ball' => $ball],
                );
            }
        }
        if ($this->situation->game->rules()->hasGroups) {
            foreach ($this->opponents($ending->final) as $ball) {
                if (
                    Ball::Eight !== $ball
                    && !\in_array($ball, $this->situation->shootable(), true)
                    && $before->has($ball)
                    && $this->open->pockets($before, $ball)->valid()
                    && !$this->open->pockets($ending->final, $ball)->valid()
                ) {
                    $facts[] = new Fact('decide.tiesHis', ['ball' => $ball]);
                }
            }
        }

        return \array_slice($facts, 0, 2);
    }
}
