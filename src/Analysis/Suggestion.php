<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Shot\ShotChoice;

/** A stroke that can be taken with one press; or, without one, a place to land that can be chosen. */
final readonly class Suggestion
{
    public function __construct(public ?ShotChoice $choice, public Fact $title, public ?Fact $words = null)
    {
    }
}
