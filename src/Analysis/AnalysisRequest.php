<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Stroke\LengthScale;
use ZigLane\Core\Table\Spot;

/** What an analysis is asked about: a shot on a rack, and what the page chose beside it. */
final readonly class AnalysisRequest
{
    /**
     * @param Rack         $rack    as it lies before the shot
     * @param Ball|null    $next    the ball after the called one
     * @param Ball|null    $after   and the one after that
     * @param list<Pocket> $pockets that count for the next ball
     * @param float        $least   odds of the next ball from which a spot is in its zone, 0 to 1
     * @param Spot|null    $target  where the cue ball is to stop
     * @param bool         $inZone  whether it may stop anywhere in the zone of the next ball
     * @param bool         $more    whether the slower rest is asked for, which comes after the first answer
     */
    public function __construct(
        public Rack $rack,
        public SolvedShot $shot,
        public ShotSolver $solver,
        public LengthScale $lengths,
        public ?Ball $next = null,
        public ?Ball $after = null,
        public array $pockets = [],
        public float $least = 0.7,
        public ?Spot $target = null,
        public bool $inZone = false,
        public bool $more = false,
    ) {
    }

    /** The next ball, if there is one on the table after this shot. */
    public function nextOn(Layout $layout): ?Ball
    {
        return null !== $this->next && $layout->has($this->next) && $this->next !== $this->shot->choice->ball ? $this->next : null;
    }

    /** @return list<PotModel> the next ball's pots on a layout, in the pockets that count */
    public function pots(Layout $layout, Ball $next): array
    {
        return PotModel::findAll($layout, $next, $this->pockets, $this->solver, $this->rack->player);
    }
}
