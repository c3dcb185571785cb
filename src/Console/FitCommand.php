<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use ZigLane\Core\Fit\LogFitter;
use ZigLane\Core\Format\FitFile;
use ZigLane\Core\Format\LogFile;

/** Fits a player's errors and biases to a log. */
#[AsCommand('lane:fit', 'Fits the errors of a player to his log and prints them with their intervals')]
final class FitCommand extends FileCommand
{
    protected function kind(): string
    {
        return 'log';
    }

    protected function maxBytes(): int
    {
        return LogFile::MAX_BYTES;
    }

    protected function numbers(): array
    {
        return [
            'seed' => [0, \PHP_INT_MAX, 1, 'The same seed draws the same strokes'],
            'half-life' => [0, 100000, 90, 'Days after which a shot weighs half; 0: all weigh the same'],
        ];
    }

    protected function answer(string $content, array $numbers, InputInterface $input): string
    {
        $fit = LogFitter::of(LogFile::parse($content, $this->maxBytes()), $numbers['seed'] & 0x7FFFFFFF, $numbers['half-life']);

        return json_encode(
            FitFile::toArray($fit),
            \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES,
        );
    }
}
