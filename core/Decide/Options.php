<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Rack;

/** The options of a position, the best first, with the pot chance at which attack and safety are worth the same. */
final readonly class Options
{
    /**
     * @param Rack         $rack  with the player who decides
     * @param list<Judged> $list  the best first
     * @param list<Fact>   $notes to be known before
     */
    public function __construct(public Rack $rack, public ExecutionErrors $opponent, public array $list, public array $notes = [])
    {
    }

    /** Whether the worth of an option is in balls, and not a chance to win. */
    public function isInBalls(): bool
    {
        return $this->rack->game->rules()->countsBalls;
    }

    /** The best attack, or the best of all that are none; null where there is none. */
    public function best(bool $isAttack): ?Judged
    {
        foreach ($this->list as $judged) {
            if ($isAttack === (WayKind::Attack === $judged->way->kind)) {
                return $judged;
            }
        }

        return null;
    }

    /**
     * The chance of its pot at which the best attack is worth as much as the best safety, all else as it is: 0 where it is better even when
     * it is missed.
     *
     * @return float|null null where there is no such pair, or no chance is enough
     */
    public function breakEven(): ?float
    {
        $attack = $this->best(true);
        $safety = $this->best(false);
        if (null === $attack || null === $safety || 0 === $attack->tally->made || $attack->tally->made === $attack->tally->tries) {
            return null;
        }
        [$made, $missed] = $attack->tally->madeAndMissed();
        $share = $made > $missed ? ($safety->tally->mean() - $missed) / ($made - $missed) : 2.0;

        return $share > 1.0 ? null : max(0.0, $share);
    }
}
