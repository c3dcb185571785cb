<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\App\Sheet\LookInput;
use ZigLane\App\Sheet\ShotUnits;
use ZigLane\App\Sheet\StrokeInput;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Plan\Leave;
use ZigLane\Core\Plan\MissLeave;
use ZigLane\Core\Plan\TwoAhead;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\PositionPlay\Fan;
use ZigLane\Core\PositionPlay\Landing;
use ZigLane\Core\PositionPlay\LandingSearch;
use ZigLane\Core\PositionPlay\Lane;
use ZigLane\Core\PositionPlay\SpotTarget;
use ZigLane\Core\PositionPlay\Zone;
use ZigLane\Core\PositionPlay\ZoneTarget;
use ZigLane\Core\Reading\BallReading;
use ZigLane\Core\Reading\PocketReading;
use ZigLane\Core\Reading\TableReading;
use ZigLane\Core\Rules\BallsOn;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Shot\IndirectSearch;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;

/**
 * One look at a shot, for the overlay and the strip below the table: sentences, strokes that can be taken, rows of a reading.
 *
 * @phpstan-type Choice array{title: string, words: string, for: string, take: array<string, string>}
 * @phpstan-type Row array{ball: string, trouble: string, pockets: list<array{text: string, shut: bool}>}
 */
final class Looks
{
    private const TRIES = 300;
    /** Gaps beside a way that are told, millimetres. */
    private const CLOSE = 60;
    /** Share of the best odds of two balls from which a spot counts as on the right side. */
    private const RIGHT_SIDE = 0.8;
    /** How much more the cue is raised than it is, for landings, degrees. */
    private const RAISED = [8.0, 18.0];
    /** Indirect ways that are shown. */
    private const INDIRECT = 8;

    public readonly Overlay $overlay;

    /** @var list<string> */
    public array $sentences = [];

    /** @var list<Choice> */
    public array $choices = [];

    /** Whether a slower, better answer is to be asked for. */
    public bool $hasMore = false;

    /** @var list<Row> */
    public array $rows = [];

    private function __construct(private readonly Rack $rack, private readonly TableDrawing $plan, private readonly ShotUnits $units)
    {
        $this->overlay = new Overlay($plan->projection);
    }

    /** @throws CoreError If the look cannot be taken: a sentence that says why */
    public static function at(Rack $rack, TableDrawing $plan, SolvedShot $shot, LookInput $input, ShotUnits $units): self
    {
        $looks = new self($rack, $plan, $units);
        match ($input->look) {
            'spread' => $looks->spread($shot, $input),
            'tips' => $looks->fan(Fan::overTips($looks->solver(), $shot->layout, $shot->choice)),
            'speeds' => $looks->fan(Fan::overSpeeds($looks->solver(), $shot->layout, $shot->choice, $units->lengths)),
            'zone' => $looks->zone($shot, $input),
            'read' => $looks->read($shot),
            'indirect' => $looks->indirect($shot),
            'land' => $looks->land($shot, $input),
            default => null,
        };

        return $looks;
    }

    private function solver(): ShotSolver
    {
        return new ShotSolver($this->rack->equipment);
    }

    private function spread(SolvedShot $shot, LookInput $input): void
    {
        $next = $input->nextBall();
        $solver = $this->solver();
        $trials = Trials::of($shot, $solver, $this->rack->player, self::TRIES, 1, $next);
        foreach ($trials->landings as $landing) {
            $this->overlay->dot($landing, 7, 'of-trial');
        }
        foreach ([['is-95', 0.95], ['is-68', 0.68]] as [$class, $share]) {
            $outline = $trials->outline($share);
            if ([] !== $outline) {
                $this->overlay->area([$outline], $class);
            }
        }
        $percent = static fn (int $count): string => $count > 0 && $count < 0.005 * $trials->count ? 'under 1 %' : \sprintf('%.0f %%', 100 * $count / $trials->count);
        $parts = [\sprintf('Of %d simulated tries with the player\'s errors %s pot the %s; the cue ball then stops inside the inner line in 68 of 100, inside the outer in 95.', $trials->count, $percent($trials->made), $shot->choice->ball->label())];
        $risks = [];
        foreach ($trials->scratches as $pocket => $count) {
            $risks[] = \sprintf('scratch in %s %s', $pocket, $percent($count));
        }
        foreach ($trials->struck as $number => $count) {
            $risks[] = \sprintf('%s struck %s', Ball::from($number)->spoken(), $percent($count));
        }
        if (null !== $next && $trials->hooked > 0) {
            $risks[] = \sprintf('hooked on the %s after %s', $next->label(), $percent($trials->hooked));
        }
        if ($trials->miscues > 0) {
            $risks[] = 'miscue '.$percent($trials->miscues);
        }
        $parts[] = [] === $risks ? 'No scratch, no other ball struck.' : ucfirst(implode(', ', $risks)).'.';
        $misses = MissLeave::of($trials->misses, $shot->layout, $this->rack->group, $shot->choice, new Referee($this->rack->game, $this->rack->rules), new Leave($this->rack, $solver, 2));
        if ($misses->count > 0) {
            $parts[] = MissWords::of($misses->count, $misses->fouls, $misses->chance);
        }
        $this->sentences = $parts;
    }

    private function fan(Fan $fan): void
    {
        foreach ($fan->shots as $i => [$label, $shot]) {
            $this->overlay->route($shot->outcome->trajectory(Ball::Cue), 'of-fan', (string) $i);
            $scratch = $shot->scratch();
            if (null === $scratch) {
                $end = $shot->outcome->final->spot(Ball::Cue);
                $this->overlay->dot($end, 22, 'of-fan');
                $this->overlay->label($end, str_replace(' lengths', '', $label), (string) $i);
            }
            $this->choices[] = $this->choice($shot, $label, null === $scratch ? Landing::routeOf($shot) : 'scratches in '.$scratch->value, (string) $i);
        }
        $this->sentences = [[] === $fan->shots ? 'No other way of this pot makes the ball.' : 'The same pot, played so; press one to take it.'];
    }

    private function zone(SolvedShot $shot, LookInput $input): void
    {
        $next = $input->nextBall();
        $layout = $shot->outcome->final;
        if (null === $next || !$layout->has($next) || $next === $shot->choice->ball) {
            $this->sentences = ['There is no next ball on the table after this shot.'];

            return;
        }
        $lines = $this->lines($layout, $next, $input);
        if ([] === $lines) {
            $this->sentences = [\sprintf('The %s does not go %s: nothing sends it there straight.', $next->label(), '' === $input->nextPocket ? 'anywhere' : 'in '.$input->nextPocket)];

            return;
        }
        $zone = Zone::of($lines, $this->rack->equipment);
        $least = $input->odds / 100;
        foreach (array_unique([$least, 0.5 * ($least + 1), 0.9]) as $k => $odds) {
            if (0 === $k || $odds > $least) {
                $this->overlay->area($zone->polygons($odds), 'of-zone-'.$k);
            }
        }
        if (1 === \count($lines)) {
            $ghost = $lines[0]->ghost;
            $this->overlay->line($layout->spot($next), $this->rack->equipment->geometry->at($lines[0]->pocket)->mouth(), 'of-pot');
            $this->overlay->line($ghost, $ghost->towards($lines[0]->line + \M_PI, 0.5), 'of-pot');
        }
        $names = implode(', ', array_map(static fn (PotModel $line): string => $line->pocket->value, $lines));
        $here = $layout->has(Ball::Cue) ? \sprintf(', here %d', (int) round(100 * Zone::best($lines, $layout->spot(Ball::Cue)))) : '';
        $text = \sprintf('Shaded: the %s in %s %d or more of 100, darker more (best %d%s), at medium speed, half a tip above.', $next->label(), $names, $input->odds, (int) round(100 * $zone->most()), $here);
        $this->sentences = [$text, $this->lane($shot, $lines, $least)];
        $after = $input->ballAfterNext();
        if (null === $after || !$layout->has($after)) {
            return;
        }
        if ($input->more) {
            $this->sentences[] = $this->ahead($layout, $lines, $after);
        } else {
            $this->hasMore = true;
            $this->sentences[] = \sprintf('Working out from where the %s follows…', $after->label());
        }
    }

    /** @return list<PotModel> the next ball's, over the chosen pocket or all */
    private function lines(Layout $layout, Ball $next, LookInput $input): array
    {
        return PotModel::findAll($layout, $next, $input->pockets(), $this->solver(), $this->rack->player);
    }

    /**
     * The part of the zone from which the ball after the next one follows: the right side of the line.
     *
     * @param non-empty-list<PotModel> $lines
     */
    private function ahead(Layout $layout, array $lines, Ball $after): string
    {
        $zone = Zone::ofOdds($lines, TwoAhead::odds($this->rack->withLayout($layout), $lines, $after), $this->rack->equipment);
        $most = $zone->most();
        if ($most < 0.02) {
            return \sprintf('From nowhere the %s follows after the %s with odds worth showing.', $after->label(), $lines[0]->ball->label());
        }
        $this->overlay->area($zone->polygons(self::RIGHT_SIDE * $most), 'of-ahead');

        return \sprintf(
            'Hatched, the right side: the %s and then the %s %d or more of 100 (best spot %d, by the planner\'s reckoning).',
            $lines[0]->ball->label(),
            $after->label(),
            (int) round(100 * self::RIGHT_SIDE * $most),
            (int) round(100 * $most),
        );
    }

    /** @param non-empty-list<PotModel> $lines */
    private function lane(SolvedShot $shot, array $lines, float $least): string
    {
        $lane = Lane::of($shot, $lines, $least, $this->solver());
        if (\is_string($lane)) {
            return 'No lane: '.$lane.'.';
        }
        $this->overlay->lane($lane->stops);
        $speed = $shot->strike->speed;
        $lengths = fn (float $share): float => $this->units->lengths->lengths(min($speed * $share, Strike::MAX_SPEED));
        $way = match (true) {
            null === $lane->angle => '',
            $lane->angle < 35.0 => \sprintf(', into the line (%.0f°)', $lane->angle),
            $lane->angle > 55.0 => \sprintf(', across the line (%.0f°)', $lane->angle),
            default => \sprintf(', at %.0f° to the line', $lane->angle),
        };

        return \sprintf(
            'Lane: %.0f cm, from %.0f %% softer (%.1f lengths) to %.0f %% harder (%.1f)%s. Short: %s; long: %s.',
            100 * $lane->length(),
            100 * $lane->slower,
            $lengths(1 - $lane->slower),
            100 * $lane->harder,
            $lengths(1 + $lane->harder),
            $way,
            '' === $lane->short ? 'no end' : $lane->short,
            '' === $lane->long ? 'no end' : $lane->long,
        );
    }

    private function read(SolvedShot $shot): void
    {
        $reading = TableReading::of($shot->layout, $this->solver(), $this->rack->player);
        foreach ($reading->balls as $ball) {
            $spot = $shot->layout->spot($ball->ball);
            foreach ($ball->pockets as $pocket) {
                if ($pocket->odds >= 0.05) {
                    $mouth = $this->rack->equipment->geometry->at($pocket->pocket)->mouth();
                    $this->overlay->line($spot->towards($spot->directionTo($mouth), 0.035), $mouth, $pocket->odds >= 0.5 ? 'of-good' : 'of-poor', 'ball-'.$ball->ball->label());
                }
            }
            $trouble = $this->trouble($ball);
            if ('' !== $trouble) {
                $this->overlay->dot($spot, 46, 'of-trouble');
            }
            $this->rows[] = [
                'ball' => $ball->ball->label(),
                'trouble' => '' === $trouble ? 'none' : $trouble,
                'pockets' => self::pots($ball),
            ];
        }
        $this->sentences = [];
    }

    private function trouble(BallReading $ball): string
    {
        $words = [];
        if (0 === $ball->openPockets()) {
            $words[] = 'no pocket';
        }
        $only = $ball->onlyPocket();
        if (null !== $only) {
            $words[] = 'only '.$only->pocket->value;
        }
        if ([] !== $ball->cluster) {
            $words[] = 'with the '.implode(', ', array_map(static fn (Ball $other): string => $other->label(), $ball->cluster));
        }
        if ($ball->isFrozen) {
            $words[] = 'on the rail';
        }
        if ($ball->isHanging) {
            $words[] = 'hangs in a jaw';
        }
        if (0.0 === $ball->seen) {
            $words[] = 'hooked';
        } elseif ($ball->seen < 0.999) {
            $words[] = \sprintf('%.0f %% seen', 100 * $ball->seen);
        }

        return implode(', ', $words);
    }

    /** @return list<array{text: string, shut: bool}> first the pockets that can be played from here, then the others, then the shut ones */
    private static function pots(BallReading $ball): array
    {
        $here = $elsewhere = $shut = [];
        foreach ($ball->pockets as $pocket) {
            $name = $pocket->pocket->value;
            if (!$pocket->isReal()) {
                $by = array_unique(array_map(static fn (Ball $other): string => $other->label(), $pocket->blockers));
                $shut[] = $name.([] === $by ? '' : ' by the '.implode(' and ', $by));
            } elseif (null === $pocket->cut) {
                $elsewhere[] = $name;
            } else {
                $here[] = ['text' => $name.' '.self::pot($pocket), 'shut' => false];
            }
        }
        if ([] !== $elsewhere) {
            $here[] = ['text' => 'from elsewhere '.implode(', ', $elsewhere), 'shut' => true];
        }
        if ([] !== $shut) {
            $here[] = ['text' => 'shut '.implode(', ', $shut), 'shut' => true];
        }

        return $here;
    }

    private static function pot(PocketReading $pocket): string
    {
        $parts = [\sprintf('cut %.0f°', $pocket->cut)];
        foreach ([['ball', $pocket->beside], ['cue ball', $pocket->way ?? ['left' => null, 'right' => null]]] as [$whose, $gaps]) {
            $sides = [];
            foreach ($gaps as $side => $nearest) {
                if (null !== $nearest && 1000 * $nearest[0] < self::CLOSE) {
                    $sides[] = $nearest[0] < 0.0 ? $side.' blocked' : \sprintf('%s %.0f', $side, 1000 * $nearest[0]);
                }
            }
            if ([] !== $sides) {
                $parts[] = \sprintf('%s clears %s mm', $whose, implode(', ', $sides));
            }
        }
        if ('' !== $pocket->openSide) {
            $parts[] = 'open to its '.$pocket->openSide;
        } elseif ($pocket->openShare < 0.35) {
            $parts[] = 'partly open';
        }

        return \sprintf('%.0f (%s)', 100 * $pocket->odds, implode(', ', $parts));
    }

    /** Combinations, caroms, banks and kicks that the rules allow from here. */
    private function indirect(SolvedShot $shot): void
    {
        $on = BallsOn::of($this->rack->game, $shot->layout, $this->rack->group);
        $found = (new IndirectSearch($this->rack->withLayout($shot->layout)))->find($on);
        foreach (\array_slice($found, 0, self::INDIRECT) as $i => $way) {
            foreach ([Ball::Cue, ...$way->over, $way->shot->choice->ball] as $ball) {
                $this->overlay->route($way->shot->outcome->trajectory($ball), 0 === $i ? 'is-best' : 'of-fan', (string) $i);
            }
            $this->choices[] = $this->choice($way->shot, \sprintf('%s in %s', $way->shot->choice->ball->label(), $way->shot->choice->pocket->value), \sprintf('%s, %.0f of 100', $way->spoken(), 100 * $way->odds), (string) $i);
        }
        $name = static fn (Ball $ball): string => $ball->label();
        $this->sentences = [[] === $found
            ? \sprintf('No combination, carom, bank or kick has odds of %d of 100 or more from here.', (int) (100 * IndirectSearch::REAL))
            : \sprintf('Ways over balls and cushions that meet %s first, from 100 simulated tries each at two speeds; press one to take it.', \count($on) > 3 ? 'a ball that may be shot' : 'the '.implode(' or ', array_map($name, $on)))];
    }

    private function land(SolvedShot $shot, LookInput $input): void
    {
        $next = $input->nextBall();
        $point = $input->point();
        $lines = null === $point && null !== $next && $shot->layout->has($next) && $next !== $shot->choice->ball ? $this->lines($shot->layout->without($shot->choice->ball), $next, $input) : [];
        if (null !== $point) {
            $spot = $this->plan->projection->spot(...$point);
            $target = new SpotTarget($spot);
            $there = 'there';
            $this->overlay->dot($spot, 1000 * SpotTarget::ROOM, 'of-target');
            $this->overlay->dot($spot, 10, 'of-target');
        } elseif ($input->landsInZone() && [] !== $lines) {
            $target = new ZoneTarget($lines, $input->odds / 100);
            $there = 'in the zone';
            $this->overlay->area(Zone::of($lines, $this->rack->equipment)->polygons($input->odds / 100), 'of-zone-0');
        } else {
            $this->sentences = ['Click the cloth where the cue ball should stop: strokes that bring it there are found, each with its odds.'];
            if ([] !== $lines) {
                $this->choices[] = ['title' => \sprintf('Anywhere in the zone of the %s', $next->label()), 'words' => \sprintf('%d or more of 100', $input->odds), 'for' => '', 'take' => ['target' => 'zone']];
            }

            return;
        }
        $search = new LandingSearch($this->solver(), $this->rack->player);
        $sides = $input->more ? $search->sides($shot->layout, $shot->choice->ball, $shot->choice->pocket) : [];
        $elevation = $shot->choice->stroke->elevation;
        $raised = $input->more ? array_filter(array_map(static fn (float $more): float => $elevation + $more, self::RAISED), static fn (float $degrees): bool => $degrees <= Strike::MAX_ELEVATION_DEGREES) : [];
        $landings = $search->find($shot->layout, $shot->choice->ball, $shot->choice->pocket, $target, $elevation, [0.0, ...$sides], array_values($raised));
        $this->hasMore = !$input->more;
        if ([] === $landings) {
            $this->sentences = [\sprintf('No stroke was found that pots the %s in %s and keeps the cue ball clear: %s.', $shot->choice->ball->label(), $shot->choice->pocket->value, self::failures($search))];

            return;
        }
        $nearest = $landings[0]->off;
        $this->sentences = [match (true) {
            $nearest <= LandingSearch::CLOSE => \sprintf('Strokes that stop %s, the best first: chance of the pot, of a stop %s, and of neither a scratch nor another ball struck, from %d simulated tries each.', $there, $target instanceof SpotTarget ? \sprintf('within %.0f cm', 100 * SpotTarget::ROOM) : 'in it', LandingSearch::TRIES),
            $target instanceof ZoneTarget => \sprintf('No stroke was found that stops in the zone (of those that come to nothing: %s). The nearest leaves the next ball with odds of %.0f of 100:', self::failures($search), $input->odds - 100 * ($nearest - 1)),
            default => \sprintf('No stroke was found that stops there (of those that come to nothing: %s). The nearest stops %.0f cm away:', self::failures($search), 100 * $nearest),
        }];
        $this->sentences[0] .= $this->hasMore
            ? ' Trying the sides of the pocket and a raised cue…'
            : \sprintf(' Tried as well: %sthe cue raised by %s°.', [] === $sides ? '' : 'the sides of the pocket, and ', implode(' and ', self::RAISED));
        foreach ($landings as $i => $landing) {
            $this->overlay->route($landing->shot->outcome->trajectory(Ball::Cue), 0 === $i ? 'is-best' : 'of-fan', (string) $i);
            $this->choices[] = $this->choice($landing->shot, $landing->route, \sprintf('pot %.0f, %s %.0f, clear %.0f of 100', 100 * $landing->made, $there, 100 * $landing->there, 100 * $landing->clear), (string) $i);
        }
    }

    private static function failures(LandingSearch $search): string
    {
        $parts = [];
        foreach (\array_slice($search->failures(), 0, 3) as $why => $count) {
            $parts[] = \sprintf('%d times %s', $count, $why);
        }

        return [] === $parts ? 'none' : implode(', ', $parts);
    }

    /** @return Choice */
    private function choice(SolvedShot $shot, string $title, string $words, string $for): array
    {
        $input = StrokeInput::fromChoice($shot->choice, $this->units);
        $aside = 1000 * $shot->choice->aside;
        $side = abs($aside) < 0.5 ? '' : \sprintf(', %.0f mm to the %s of the pocket', abs($aside), $aside > 0 ? 'left' : 'right');
        $raised = $shot->choice->stroke->elevation < 5.0 ? '' : \sprintf(', raised %.0f°', $shot->choice->stroke->elevation);
        $stroke = \sprintf('%s %s, %s lengths%s%s', $input->clock, $this->units->tipText($shot->choice->stroke->tip), $input->lengths, $raised, $side);

        return ['title' => $title, 'words' => $words.' · '.$stroke, 'for' => $for, 'take' => ['ball' => $input->ball, 'pocket' => $input->pocket, 'direction' => $input->direction, 'elevation' => $input->elevation, 'clock' => $input->clock, 'tips' => $input->tips, 'unit' => $input->unit->value, 'lengths' => $input->lengths, 'aside' => $input->aside]];
    }
}
