<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use ZigLane\Core\Format\OutcomeFile;
use ZigLane\Core\Format\ShotFile;
use ZigLane\Core\Motion\EventSimulator;

/** Reads a shot file and prints its outcome. */
#[AsCommand('lane:simulate', 'Plays the shot in a shot file and prints the outcome as JSON')]
final class SimulateCommand extends FileCommand
{
    protected function kind(): string
    {
        return 'shot';
    }

    protected function maxBytes(): int
    {
        return 65536;
    }

    protected function answer(string $content, array $numbers, InputInterface $input): string
    {
        $shot = ShotFile::parse($content, $this->maxBytes());

        return OutcomeFile::write((new EventSimulator($shot->equipment))->play($shot->layout, $shot->strike));
    }
}
