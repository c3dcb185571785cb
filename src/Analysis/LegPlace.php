<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use Symfony\Component\HttpFoundation\InputBag;
use ZigLane\App\Entity\RackSheet;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\LegChain;
use ZigLane\Core\Shot\ShotChoice;

/** Where in a run the page is: a leg, and the rack as the legs before it leave it. */
final readonly class LegPlace
{
    private function __construct(
        public RackSheet $sheet,
        /** From 1; the next one to be planned at most. */
        public int $leg,
        public Rack $rack,
        public LegChain $legs,
        /** The shot that the sheet keeps for this leg. */
        public ?ShotChoice $kept,
    ) {
    }

    /** @param InputBag<string> $input */
    public static function of(RackSheet $sheet, InputBag $input): self
    {
        $choices = $sheet->getLegs();
        $asked = max(1, $input->getInt('leg', 1));
        // Only what comes before is played.
        $legs = LegChain::play($sheet->getRack(), \array_slice($choices, 0, $asked - 1));
        $leg = min($asked, $legs->done() + 1);

        return new self($sheet, $leg, $legs->before($leg), $legs, $choices[$leg - 1] ?? null);
    }
}
