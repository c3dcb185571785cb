<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Plan\Planning;
use ZigLane\Core\Plan\PlanSearch;

/** Plans the run-out of a rack file. */
#[AsCommand('lane:plan', 'Plans the run-out of a rack file and prints a plan file')]
final class PlanCommand extends RackCommand
{
    protected function numbers(): array
    {
        return [
            'seconds' => [1, 3600, 10, 'How long it may take; a first plan is made whatever it takes'],
            'seed' => [0, \PHP_INT_MAX, 1, 'The same seed and number of blocks give the same plan'],
            'blocks' => [0, 1000, 1000, 'Blocks of ten replays at the most'],
        ];
    }

    protected function answer(string $content, array $numbers, InputInterface $input): string
    {
        $start = hrtime(true);
        $rack = RackFile::parse($content, $this->maxBytes())->rack;
        $refusal = PlanSearch::refusal($rack);
        if (null !== $refusal) {
            throw $refusal;
        }
        [$plans, $search] = Planning::within($rack, $numbers['seconds'], $numbers['seed'], $numbers['blocks']);

        return [] === $plans
            ? throw $search->nothing()
            : (new PlanFile($plans, (hrtime(true) - $start) / 1e9, $search->simulated()))->write();
    }
}
