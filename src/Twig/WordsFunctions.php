<?php

declare(strict_types=1);

namespace ZigLane\App\Twig;

use Twig\Attribute\AsTwigFunction;
use ZigLane\App\Words\Words;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\Fault;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\RuleNotes;
use ZigLane\Core\Table\Rail;

/** What templates ask the words for. */
final readonly class WordsFunctions
{
    public function __construct(private Words $words)
    {
    }

    #[AsTwigFunction('told')]
    public function told(Fact $fact): string
    {
        return $this->words->of($fact);
    }

    /** @return list<Fact> what the rules say before a shot from a rack */
    #[AsTwigFunction('rule_notes')]
    public function notes(Rack $rack): array
    {
        return RuleNotes::of($rack);
    }

    #[AsTwigFunction('told_fault')]
    public function fault(Fault $fault): string
    {
        return $this->words->found($fault);
    }

    #[AsTwigFunction('spoken')]
    public function spoken(Ball|Rail $ball): string
    {
        return $this->words->spoken($ball);
    }
}
