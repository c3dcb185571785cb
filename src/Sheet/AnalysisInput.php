<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Symfony\Component\HttpFoundation\InputBag;
use ZigLane\App\Analysis\AnalysisKind;
use ZigLane\App\Analysis\AnalysisRequest;
use ZigLane\App\Analysis\Projection;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\LengthScale;

/** What is to be laid over the table, as the page speaks of it. */
final readonly class AnalysisInput
{
    private function __construct(
        public AnalysisKind $kind,
        /** The next ball's label; empty when there is none. */
        public string $next,
        /** Its pocket, or empty for the best. */
        public string $nextPocket,
        /** Least odds of the zone, percent. */
        public int $odds,
        /**
         * A point of the drawing, "x,y", that the cue ball is to stop at; "zone" for anywhere in that of the next ball; empty when none was
         * clicked.
         */
        public string $target,
        /** Whether the slower rest of a look is asked for, which comes after the first answer. */
        public bool $more,
        /** The ball after the next one, for the zone; empty for none. */
        public string $after,
        /** The spot typed in diamonds that the cue ball is to stop at; empty for none. */
        public string $spot = '',
    ) {
    }

    /** @param InputBag<string> $input */
    public static function of(InputBag $input, Rack $rack, string $called): self
    {
        $labels = array_map(static fn (Ball $ball): string => $ball->label(), $rack->objectBalls());
        $next = $input->getString('next');
        // The ball after the called one, unless another is chosen.
        if (!\in_array($next, $labels, true) || $next === $called) {
            $at = array_search($called, $labels, true);
            $next = $labels[false === $at ? 0 : $at + 1] ?? $labels[0] ?? '';
        }
        $target = $input->getString('target');

        return new self(
            AnalysisKind::tryFrom($input->getString('look')) ?? AnalysisKind::Route,
            $next,
            Pocket::tryFrom($input->getString('next_pocket'))->value ?? '',
            max(10, min(95, $input->getInt('odds', 70))),
            'zone' === $target || 1 === preg_match('/^-?\d{1,4}(\.\d{1,3})?,-?\d{1,4}(\.\d{1,3})?$/D', $target) ? $target : '',
            $input->getBoolean('more'),
            self::ballAfter($input->getString('after', 'auto'), $next, $called, $labels),
            mb_substr(mb_scrub(trim($input->getString('spot'))), 0, 40),
        );
    }

    /** @param list<string> $labels of the balls on the table, in the order of the game */
    private static function ballAfter(string $after, string $next, string $called, array $labels): string
    {
        $others = array_values(array_filter($labels, static fn (string $label): bool => $label !== $next && $label !== $called));
        if ('auto' !== $after) {
            return \in_array($after, $others, true) ? $after : '';
        }
        foreach ($others as $label) {
            if ((int) $label > (int) $next) {
                return $label;
            }
        }

        return $others[0] ?? '';
    }

    /**
     * The request to the analysis.
     *
     * @throws CoreError If the shot cannot be played
     */
    public function request(
        Rack $rack,
        ShotChoice $choice,
        ShotSolver $solver,
        LengthScale $lengths,
        Projection $projection,
    ): AnalysisRequest {
        $pocket = Pocket::tryFrom($this->nextPocket);
        $isPoint = !\in_array($this->target, ['', 'zone'], true);
        $spot = $isPoint ? $projection->spot(...array_map(floatval(...), explode(',', $this->target, 2))) : null;
        if (AnalysisKind::Land === $this->kind && '' !== $this->spot) {
            $spot = SpotText::spot($this->spot, $rack->equipment->table);
        }

        return new AnalysisRequest(
            $rack,
            $solver->solve($rack->layout, $choice),
            $solver,
            $lengths,
            Ball::named($this->next),
            '' === $this->after ? null : Ball::named($this->after),
            null === $pocket ? Pocket::cases() : [$pocket],
            $this->odds / 100,
            $spot,
            'zone' === $this->target,
            $this->more,
        );
    }
}
