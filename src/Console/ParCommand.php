<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Format\ParFile;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Practice\ParRuns;
use ZigLane\Core\Shot\ShotSolver;

/** What simulated players of a level score in a drill. */
#[AsCommand('lane:par', 'Plays a drill file many times by simulated players and prints what they score')]
final class ParCommand extends FileCommand
{
    use NamesPlayers;

    protected function kind(): string
    {
        return 'drill';
    }

    protected function maxBytes(): int
    {
        return DrillFile::MAX_BYTES;
    }

    protected function numbers(): array
    {
        return [
            'runs' => [1, 100_000, 1000, 'How many runs'],
            'level' => [0, 8, 0, 'Which of its levels: 0 is the drill as it stands'],
            'seed' => [0, \PHP_INT_MAX, 1, 'The same seed gives the same scores'],
        ];
    }

    protected function configure(): void
    {
        parent::configure();
        $this->addOption('player', null, InputOption::VALUE_REQUIRED, 'Whose errors: '.self::presets(), 'club player');
    }

    protected function answer(string $content, array $numbers, InputInterface $input): string
    {
        $player = $this->named($input, 'player') ?? new ExecutionErrors();
        $file = DrillFile::parse($content, $this->maxBytes());
        $runs = new ParRuns($file->at($numbers['level']), new ShotSolver(), $player, $numbers['seed'] & 0x7FFFFFFF);

        return (new ParFile($file->drill->name, $runs->play($numbers['runs'])))->write();
    }
}
