<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Plan\PlanRehearsal;

/** Plays a plan file many times with the player's errors. */
#[AsCommand('lane:rehearse', 'Plays a plan many times with the player\'s errors and prints how often it is finished')]
final class RehearseCommand extends FileCommand
{
    protected function kind(): string
    {
        return 'plan';
    }

    protected function maxBytes(): int
    {
        return PlanFile::MAX_BYTES;
    }

    protected function numbers(): array
    {
        return [
            'times' => [1, 100000, 200, 'How often'],
            'seed' => [0, \PHP_INT_MAX, 1, 'The same seed gives the same errors'],
        ];
    }

    protected function configure(): void
    {
        parent::configure();
        $this->addOption('replan', null, InputOption::VALUE_NONE, 'Plan again after every shot, from where the balls really lie');
    }

    protected function answer(string $content, array $numbers, InputInterface $input): string
    {
        $replays = PlanRehearsal::of(
            PlanFile::parse($content, $this->maxBytes())->best(),
            $numbers['times'],
            $numbers['seed'],
            true === $input->getOption('replan'),
        );

        return json_encode([
            'format' => 'zig-lane/rehearsal',
            'version' => 1,
            'times' => $replays->tries,
            'runOut' => round($replays->chance(), 4),
            'interval' => array_map(static fn (float $edge): float => round($edge, 4), $replays->interval()),
            'ended' => $replays->ended,
        ], \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES);
    }
}
