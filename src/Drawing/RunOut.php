<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Sheet\ShotUnits;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Motion\Trajectory;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\LegChain;
use ZigLane\Core\Shot\SolvedShot;

/**
 * A planned run as drawn: one of the plans of a job, its routes, one leg strong. What is drawn is played again from the plan file's
 * strokes; odds and reasons are those that the planner wrote into it.
 *
 * @phpstan-type Card array{number: int, ball: Ball, pocket: string, clock: string, tip: string, side: float, height: float, lengths: float, cut: float, make: int, position: int, run: int|null, cushions: string, landing: string, aside: string, byHand: bool}
 * @phpstan-type Line array{cue: string, label: array{x: float, y: float, text: string}|null, isHere: bool}
 */
final class RunOut
{
    /** Frames of the animation in a second of play. */
    private const FRAMES = 30;

    public readonly TableDrawing $plan;
    public readonly int $chosen;
    public readonly int $leg;

    /** @var list<array{index: int, name: string, chance: int|null, between: string, tries: int, price: string}> */
    public array $plans = [];

    /** @var list<Card> */
    public array $cards = [];

    /** @var list<Line> */
    public array $lines = [];

    public ?ShotDrawing $plot = null;
    public ?SolvedShot $shot = null;

    /** @var list<string> */
    public array $reasons = [];

    /** @var list<string> */
    public array $risks = [];

    /** What a miss leaves the other player. */
    public string $misses = '';

    /** @var list<string> of the chosen leg */
    public array $cautions = [];

    public ?int $chance = null;
    public string $between = '';
    public int $tries = 0;
    public bool $isPoor = false;
    public string $ends = '';
    /** The balls that most replays end on: "the 7 (34 of 100)". */
    public string $endsOn = '';
    public ?string $end = null;
    public string $place = '';
    public string $group = '';
    /** How straight pool goes on after the break shot, a sentence. */
    public string $thenOn = '';
    public string $lane = '';

    /** What moves in the chosen leg, for the animation: by ball a list of x, y at each frame, as JSON. */
    public string $frames = '{}';

    /** @param array<mixed> $document the job's plan file */
    private function __construct(PlanJob $job, array $document, int $chosen, int $leg, bool $upright, private readonly ShotUnits $units)
    {
        /** @var list<array<string, mixed>> $alternatives */
        $alternatives = \is_array($document['alternatives'] ?? null) ? array_values($document['alternatives']) : [];
        /** @var list<array<string, mixed>> $all */
        $all = [$document, ...$alternatives];
        $this->chosen = max(0, min($chosen, \count($all) - 1));
        $this->tellPlans($all);
        $plan = $all[$this->chosen];
        $file = PlanFile::plan($document, $this->chosen);
        $rack = $file->placed();
        $legs = LegChain::play($rack, $file->legs)->solved;
        $this->leg = max(1, min($leg, max(1, \count($legs))));
        $this->plan = new TableDrawing([] === $legs ? $rack : $rack->withLayout($legs[$this->leg - 1]->layout), $upright);
        $this->tellPlan($plan, $file, $job->getRack());
        /** @var list<array<string, mixed>> $written */
        $written = \is_array($plan['legs'] ?? null) ? array_values($plan['legs']) : [];
        foreach ($legs as $i => $shot) {
            $this->card($i, $shot, $written[$i] ?? []);
        }
        if ([] !== $legs) {
            $this->here($legs[$this->leg - 1], $written[$this->leg - 1] ?? []);
        }
    }

    /** @return self|null null while there is no plan yet */
    public static function of(PlanJob $job, int $chosen, int $leg, bool $upright, ShotUnits $units): ?self
    {
        $document = $job->getPlan();
        try {
            return null === $document ? null : new self($job, $document, $chosen, $leg, $upright, $units);
        } catch (CoreError) {
            // A plan that a later version of the rules or of the table no longer plays.
            return null;
        }
    }

    /** @param list<array<string, mixed>> $all */
    private function tellPlans(array $all): void
    {
        $best = self::number($all[0]['runOut'] ?? null);
        foreach ($all as $i => $plan) {
            $chance = self::number($plan['runOut'] ?? null);
            /** @var list<array<string, mixed>> $legs */
            $legs = \is_array($plan['legs'] ?? null) ? array_values($plan['legs']) : [];
            $name = 0 === $i ? self::text($legs[0]['ball'] ?? '').' in '.self::text($legs[0]['pocket'] ?? '') : self::text($plan['differs'] ?? '');
            $this->plans[] = [
                'index' => $i,
                'name' => $name,
                'chance' => null === $chance ? null : (int) round(100 * $chance),
                'between' => self::between($plan['interval'] ?? null),
                'tries' => (int) (self::number($plan['replays'] ?? null) ?? 0),
                'price' => 0 === $i || null === $chance || null === $best || $best - $chance < 0.005 ? '' : \sprintf('%.0f points less', 100 * ($best - $chance)),
            ];
        }
    }

    /** @param array<string, mixed> $plan */
    private function tellPlan(array $plan, PlanFile $file, Rack $rack): void
    {
        $told = $this->plans[$this->chosen];
        [$this->chance, $this->between, $this->tries] = [$told['chance'], $told['between'], $told['tries']];
        $this->isPoor = null !== $this->chance && $this->chance < 100 * \ZigLane\Core\Plan\Plan::POOR;
        $this->end = \is_string($plan['end'] ?? null) ? $plan['end'] : null;
        $ended = \is_array($plan['ended'] ?? null) ? $plan['ended'] : [];
        $words = ['missed' => 'a miss', 'scratch' => 'a scratch', 'foul' => 'a foul', 'hooked' => 'a hook', 'noShot' => 'no shot left', 'lost' => 'the game lost'];
        $parts = [];
        foreach ($words as $how => $word) {
            $count = self::number($ended[$how] ?? null) ?? 0.0;
            if ($this->tries > 0 && $count / $this->tries >= 0.005) {
                $parts[$word] = (int) round(100 * $count / $this->tries);
            }
        }
        arsort($parts);
        $this->ends = implode(', ', array_map(static fn (string $word, int $share): string => "$word $share", array_keys($parts), $parts));
        /** @var list<array<string, mixed>> $endsOn */
        $endsOn = \is_array($plan['endsOn'] ?? null) ? array_values($plan['endsOn']) : [];
        $this->endsOn = implode(', ', array_map(static fn (array $end): string => \sprintf('the %s (%.0f of 100)', self::text($end['ball'] ?? ''), 100 * (self::number($end['share'] ?? null) ?? 0.0)), $endsOn));
        $then = \is_array($plan['thenOn'] ?? null) ? $plan['thenOn'] : [];
        if (isset($then['racks'], $then['easiestPot'])) {
            $this->thenOn = \sprintf('Then on: in the %.0f racks that the break shot opened, the easiest pot goes %.0f of 100 on average.', self::number($then['racks']) ?? 0.0, 100 * (self::number($then['easiestPot']) ?? 0.0));
        }
        $this->group = null !== $file->group && Group::Open === ($rack->group ?? Group::Open) ? $file->group->value : '';
        if (null !== $file->place) {
            [$long, $short] = $file->place->inDiamonds($rack->equipment->table);
            $this->place = \sprintf('%.2f, %.2f', $long, $short);
        }
    }

    /** @param array<string, mixed> $written */
    private function card(int $i, SolvedShot $shot, array $written): void
    {
        $choice = $shot->choice;
        $tip = $choice->stroke->tip;
        $p = $this->plan->projection;
        $path = $shot->outcome->trajectory(Ball::Cue)->points(0.002);
        $label = null;
        if (null === $shot->scratch()) {
            [$x, $y] = $p->point($path[\count($path) - 1]);
            $label = ['x' => $x, 'y' => $y, 'text' => (string) ($i + 1)];
        }
        $this->lines[] = ['cue' => 'M'.implode('L', array_map($p->text(...), $path)), 'label' => $label, 'isHere' => $i + 1 === $this->leg];
        $report = new ShotReport($shot, $this->plan->rack->equipment->table);
        $run = self::number($written['runOut'] ?? null);
        $this->cards[] = [
            'number' => $i + 1,
            'ball' => $choice->ball,
            'pocket' => $choice->pocket->value,
            'clock' => $tip->clock(),
            'tip' => $this->units->tipText($tip),
            'side' => $tip->side,
            'height' => $tip->height,
            'lengths' => self::number($written['lengths'] ?? null) ?? 0.0,
            'cut' => $shot->aim->ghost->cutDegrees,
            'make' => (int) round(100 * (self::number($written['make'] ?? null) ?? 0.0)),
            'position' => (int) round(100 * (self::number($written['position'] ?? null) ?? 0.0)),
            'run' => null === $run ? null : (int) round(100 * $run),
            'cushions' => $report->cushions,
            'landing' => $report->stops,
            'aside' => abs($choice->aside) < 0.0005 ? '' : \sprintf('%.0f mm to the %s of the pocket', 1000 * abs($choice->aside), $choice->aside > 0 ? 'left' : 'right'),
            'byHand' => null !== $choice->direction,
        ];
    }

    /** @param array<string, mixed> $written */
    private function here(SolvedShot $shot, array $written): void
    {
        $this->shot = $shot;
        $this->plot = new ShotDrawing($this->plan, $shot);
        $this->cautions = (new ShotReport($shot, $this->plan->rack->equipment->table))->cautions;
        $this->reasons = array_values(array_filter(\is_array($written['reasons'] ?? null) ? $written['reasons'] : [], is_string(...)));
        $risks = \is_array($written['risks'] ?? null) ? $written['risks'] : [];
        foreach (['scratch' => 'scratch', 'hook' => 'hooked on the next', 'contact' => 'another ball struck', 'miscue' => 'miscue'] as $field => $word) {
            $share = self::number($risks[$field] ?? null) ?? 0.0;
            if ($share >= 0.005) {
                $this->risks[] = \sprintf('%s %d of 100', $word, (int) round(100 * $share));
            }
        }
        $misses = \is_array($written['misses'] ?? null) ? $written['misses'] : [];
        $this->misses = MissWords::of((int) self::number($misses['count'] ?? null), (int) self::number($misses['fouls'] ?? null), self::number($misses['leave'] ?? null));
        $lane = \is_array($written['lane'] ?? null) ? $written['lane'] : [];
        $length = self::number($lane['metres'] ?? null);
        if (null !== $length) {
            $this->lane = \sprintf('%.0f cm, %.0f %% softer to %.0f %% harder', 100 * $length, 100 * (self::number($lane['slower'] ?? null) ?? 0.0), 100 * (self::number($lane['harder'] ?? null) ?? 0.0));
        }
        $this->frames = $this->framesOf($shot);
    }

    private function framesOf(SolvedShot $shot): string
    {
        $balls = [];
        foreach ($shot->outcome->trajectories as $number => $trajectory) {
            if ($trajectory->moves()) {
                $balls[Ball::from($number)->label()] = ['frames' => $this->samples($trajectory, $shot->outcome->duration()), 'drops' => null !== $shot->outcome->pocketOf(Ball::from($number)) ? (int) ceil($trajectory->end() * self::FRAMES) : null];
            }
        }

        return json_encode(['rate' => self::FRAMES, 'balls' => $balls], \JSON_THROW_ON_ERROR);
    }

    /** @return list<array{float, float}> */
    private function samples(Trajectory $trajectory, float $duration): array
    {
        $frames = [];
        for ($i = 0, $n = (int) ceil($duration * self::FRAMES); $i <= $n; ++$i) {
            [$x, $y] = $this->plan->projection->point($trajectory->at($i / self::FRAMES));
            $frames[] = [round($x, 1), round($y, 1)];
        }

        return $frames;
    }

    private static function between(mixed $interval): string
    {
        return \is_array($interval) && \is_float($interval[0] ?? null) && \is_float($interval[1] ?? null) ? \sprintf('%.0f to %.0f', 100 * $interval[0], 100 * $interval[1]) : '';
    }

    private static function number(mixed $value): ?float
    {
        return \is_int($value) || \is_float($value) ? (float) $value : null;
    }

    private static function text(mixed $value): string
    {
        return \is_string($value) ? $value : '';
    }
}
