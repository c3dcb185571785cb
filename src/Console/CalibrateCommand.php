<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use ZigLane\Core\Calibration\TableFitter;
use ZigLane\Core\Format\TableFitFile;
use ZigLane\Core\Format\TableTestsFile;

/** Finds the constants of a table from its tests. */
#[AsCommand('lane:calibrate', 'Finds the constants of a table from shots that were measured and prints them with their intervals')]
final class CalibrateCommand extends FileCommand
{
    protected function kind(): string
    {
        return 'table-tests';
    }

    protected function maxBytes(): int
    {
        return TableTestsFile::MAX_BYTES;
    }

    protected function numbers(): array
    {
        return ['seed' => [0, \PHP_INT_MAX, 1, 'The same seed draws the same tables']];
    }

    protected function answer(string $content, array $numbers, InputInterface $input): string
    {
        $file = TableTestsFile::parse($content, $this->maxBytes());
        $fit = (new TableFitter($file->base, $file->tests))->fit($numbers['seed'] & 0x7FFFFFFF);

        return json_encode(
            TableFitFile::toArray($fit),
            \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES,
        );
    }
}
