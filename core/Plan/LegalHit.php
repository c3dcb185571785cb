<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Rail;

/** A stroke that meets a ball on and drives something to a cushion, over whatever cushions. */
final readonly class LegalHit
{
    /**
     * @param Ball       $ball     that is met first
     * @param list<Rail> $cushions before it, in order
     * @param float      $chance   that no rule is broken, of tries with the player's errors, 0 to 1
     */
    public function __construct(public Ball $ball, public array $cushions, public Strike $strike, public float $chance, public int $tries)
    {
    }

    public function fact(): Fact
    {
        return new Fact('hit.legal', [
            'ball' => $this->ball,
            'rails' => $this->cushions,
            'way' => [] === $this->cushions ? 'straight' : 'kick',
            'chanceShare' => $this->chance,
            'directionDegrees' => rad2deg($this->strike->direction),
            'speedMps' => $this->strike->speed,
        ]);
    }
}
