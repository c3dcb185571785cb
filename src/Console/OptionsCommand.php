<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use ZigLane\Core\Decide\OptionSearch;
use ZigLane\Core\Decide\Refusal;
use ZigLane\Core\Format\OptionsFile;
use ZigLane\Core\Format\RackFile;

/** The options of a rack file's position: attacks and safeties by the chance to win. */
#[AsCommand('lane:options', 'Weighs the attacks and safeties of a rack file and prints an options file')]
final class OptionsCommand extends RackCommand
{
    use NamesPlayers;

    protected function numbers(): array
    {
        return [
            'seconds' => [1, 600, 10, 'How long it may take; a first list is made whatever it takes'],
            'seed' => [0, \PHP_INT_MAX, 1, 'The same seed and number of tries give the same list'],
        ];
    }

    protected function configure(): void
    {
        parent::configure();
        $this->addOption(
            'opponent',
            null,
            InputOption::VALUE_REQUIRED,
            'Whose errors the other player has: '.self::presets().'; else the same',
        );
    }

    protected function answer(string $content, array $numbers, InputInterface $input): string
    {
        $start = hrtime(true);
        $rack = RackFile::parse($content, $this->maxBytes())->rack;
        $opponent = $this->named($input, 'opponent') ?? $rack->player;
        $refusal = Refusal::of($rack);
        if (null !== $refusal) {
            throw $refusal;
        }
        [$options, $simulated] = OptionSearch::within($rack, $opponent, $numbers['seconds'], $numbers['seed'] & 0x7FFFFFFF);

        return (new OptionsFile($options, (hrtime(true) - $start) / 1e9, $simulated))->write();
    }
}
