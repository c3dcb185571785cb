<?php

declare(strict_types=1);

namespace ZigLane\App\Twig;

use Twig\Attribute\AsTwigFunction;
use ZigLane\App\Words\Words;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\Fault;
use ZigLane\Core\Position\Ball;
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
