<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\App\Analysis\FanAnalysis;
use ZigLane\App\Analysis\IndirectAnalysis;
use ZigLane\App\Analysis\LandingAnalysis;
use ZigLane\App\Analysis\Projection;
use ZigLane\App\Analysis\ReadingAnalysis;
use ZigLane\App\Analysis\ShotAnalysis;
use ZigLane\App\Analysis\SpreadAnalysis;
use ZigLane\App\Analysis\ZoneAnalysis;
use ZigLane\App\Words\Words;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\PositionPlay\Lane;
use ZigLane\Core\PositionPlay\SpotTarget;
use ZigLane\Core\Table\Equipment;

/** Lays the result of an analysis over a table drawing. */
final readonly class AnalysisDrawing
{
    public function __construct(private Words $words)
    {
    }

    public function of(ShotAnalysis $analysis, Projection $projection, Equipment $equipment): Overlay
    {
        $overlay = new Overlay($projection);
        match (true) {
            $analysis instanceof SpreadAnalysis => $this->spread($overlay, $analysis),
            $analysis instanceof FanAnalysis => $this->fan($overlay, $analysis),
            $analysis instanceof ZoneAnalysis => $this->zone($overlay, $analysis, $equipment),
            $analysis instanceof ReadingAnalysis => $this->reading($overlay, $analysis, $equipment),
            $analysis instanceof IndirectAnalysis => $this->indirect($overlay, $analysis),
            $analysis instanceof LandingAnalysis => $this->landing($overlay, $analysis),
            default => null,
        };

        return $overlay;
    }

    private function spread(Overlay $overlay, SpreadAnalysis $analysis): void
    {
        foreach ($analysis->trials->landings as $landing) {
            $overlay->dot($landing, 7, 'of-trial');
        }
        foreach ([['is-95', 0.95], ['is-68', 0.68]] as [$class, $share]) {
            $outline = $analysis->trials->outline($share);
            if ([] !== $outline) {
                $overlay->area([$outline], $class);
            }
        }
    }

    private function fan(Overlay $overlay, FanAnalysis $analysis): void
    {
        foreach ($analysis->fan->shots as $i => $fanned) {
            $overlay->route($fanned->shot->outcome->trajectory(Ball::Cue), 'of-fan', (string) $i);
            if (null === $fanned->shot->scratch()) {
                $end = $fanned->shot->outcome->final->spot(Ball::Cue);
                $overlay->dot($end, 22, 'of-fan');
                $overlay->label(
                    $end,
                    null === $fanned->lengths ? $this->words->of(FanAnalysis::label($fanned)) : \sprintf('%.1f', $fanned->lengths),
                    (string) $i,
                );
            }
        }
    }

    private function zone(Overlay $overlay, ZoneAnalysis $analysis, Equipment $equipment): void
    {
        foreach ($analysis->areas as $k => $rings) {
            $overlay->area($rings, 'of-zone-'.$k);
        }
        $pot = $analysis->pot;
        if (null !== $pot) {
            $overlay->line($pot->layout->spot($pot->ball), $equipment->geometry->at($pot->pocket)->mouth(), 'of-pot');
            $overlay->line($pot->ghost, $pot->ghost->towards($pot->line + \M_PI, 0.5), 'of-pot');
        }
        if ([] !== $analysis->ahead) {
            $overlay->area($analysis->ahead, 'of-ahead');
        }
        if ($analysis->lane instanceof Lane) {
            $overlay->lane($analysis->lane->stops);
        }
    }

    private function reading(Overlay $overlay, ReadingAnalysis $analysis, Equipment $equipment): void
    {
        foreach ($analysis->reading->balls as $ball) {
            $spot = $analysis->layout->spot($ball->ball);
            foreach ($ball->pockets as $pocket) {
                if ($pocket->odds >= 0.05) {
                    $mouth = $equipment->geometry->at($pocket->pocket)->mouth();
                    $overlay->line(
                        $spot->towards($spot->directionTo($mouth), 0.035),
                        $mouth,
                        $pocket->odds >= 0.5 ? 'of-good' : 'of-poor',
                        'ball-'.$ball->ball->label(),
                    );
                }
            }
            if ([] !== ReadingAnalysis::trouble($ball)) {
                $overlay->dot($spot, 46, 'of-trouble');
            }
        }
    }

    private function indirect(Overlay $overlay, IndirectAnalysis $analysis): void
    {
        foreach ($analysis->ways as $i => $found) {
            foreach ([Ball::Cue, ...$found->way->over, $found->way->shot->choice->ball] as $ball) {
                $overlay->route($found->way->shot->outcome->trajectory($ball), 0 === $i ? 'is-best' : 'of-fan', (string) $i);
            }
        }
    }

    private function landing(Overlay $overlay, LandingAnalysis $analysis): void
    {
        if (null !== $analysis->spot) {
            $overlay->dot($analysis->spot, 1000 * SpotTarget::ROOM, 'of-target');
            $overlay->dot($analysis->spot, 10, 'of-target');
        }
        if ([] !== $analysis->area) {
            $overlay->area($analysis->area, 'of-zone-0');
        }
        foreach ($analysis->landings as $i => $landing) {
            $overlay->route($landing->shot->outcome->trajectory(Ball::Cue), 0 === $i ? 'is-best' : 'of-fan', (string) $i);
        }
    }
}
