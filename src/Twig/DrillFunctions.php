<?php

declare(strict_types=1);

namespace ZigLane\App\Twig;

use Twig\Attribute\AsTwigFunction;
use ZigLane\App\Practice\DrillCard;
use ZigLane\App\Words\Words;
use ZigLane\Core\Fact\Fact;

/** Words of drills for templates. */
final readonly class DrillFunctions
{
    public function __construct(private Words $words)
    {
    }

    /** Whose par: "of simulated players of the level club player". */
    #[AsTwigFunction('whose_par')]
    public function whosePar(string $name): string
    {
        return $this->words->of(new Fact('practice.whose', ['name' => $name]));
    }

    #[AsTwigFunction('drill_points')]
    public function points(float $points): string
    {
        return $this->words->of(DrillCard::points($points));
    }
}
