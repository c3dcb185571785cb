<?php

declare(strict_types=1);

namespace ZigLane\App\Twig;

use Symfony\Contracts\Translation\TranslatorInterface;
use Twig\Attribute\AsTwigFunction;
use ZigLane\App\Practice\DrillCard;

/** Words of drills for templates. */
final readonly class DrillFunctions
{
    public function __construct(private TranslatorInterface $translator)
    {
    }

    /** Whose par: "of simulated players of the level club player". */
    #[AsTwigFunction('whose_par')]
    public function whosePar(string $name): string
    {
        return $this->translator->trans('practice.whose', ['name' => $name]);
    }

    #[AsTwigFunction('drill_points')]
    public function points(float $points): string
    {
        return DrillCard::points($points);
    }
}
