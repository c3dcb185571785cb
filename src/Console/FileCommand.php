<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Exception\InvalidOptionException;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use ZigLane\App\Words\Words;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\InvalidFile;

/**
 * A command that reads a file, or standard input, and prints an answer. A file or a number that is not valid gets exit code 2, nothing on
 * standard output, and one line on standard error for each fault; what cannot be answered gets exit code 1.
 */
abstract class FileCommand extends Command
{
    public function __construct(private readonly Words $words)
    {
        parent::__construct();
    }

    /** What the file is called, as in "a rack file". */
    abstract protected function kind(): string;

    abstract protected function maxBytes(): int;

    /**
     * @param array<string, int> $numbers the options of `numbers`
     *
     * @throws CoreError If it cannot be answered; InvalidFile if the file is not valid
     */
    abstract protected function answer(string $content, array $numbers, InputInterface $input): string;

    /** @return array<string, array{int, int, int, string}> options that are whole numbers: least, most, default, what it is */
    protected function numbers(): array
    {
        return [];
    }

    protected function configure(): void
    {
        $this->addArgument('file', InputArgument::REQUIRED, \sprintf('A *.%s.json file, or - for standard input', $this->kind()));
        foreach ($this->numbers() as $name => [, , $default, $what]) {
            $this->addOption($name, null, InputOption::VALUE_REQUIRED, $what, (string) $default);
        }
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $errors = $output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output;
        $file = $input->getArgument('file');
        \assert(\is_string($file));
        $numbers = $faults = [];
        foreach ($this->numbers() as $name => [$least, $most]) {
            $value = $input->getOption($name);
            $number = \is_string($value)
                ? filter_var($value, \FILTER_VALIDATE_INT, ['options' => ['min_range' => $least, 'max_range' => $most]])
                : false;
            $numbers[$name] = (int) $number;
            if (false === $number) {
                $faults[] = \sprintf(
                    '%s: found %s; a whole number from %d to %d is allowed',
                    $name,
                    \is_string($value) ? $value : 'nothing',
                    $least,
                    $most,
                );
            }
        }
        $content = '-' === $file || is_file($file)
            ? @file_get_contents('-' === $file ? 'php://stdin' : $file, length: max(0, $this->maxBytes()) + 1)
            : false;
        if (false === $content) {
            $faults[] = \sprintf('%s: cannot be read; a %s file or - for standard input is allowed', $file, $this->kind());
        }
        if (false === $content || [] !== $faults) {
            $errors->writeln($faults, OutputInterface::OUTPUT_RAW);

            return Command::INVALID;
        }
        try {
            $answer = $this->answer($content, $numbers, $input);
        } catch (InvalidOptionException $e) {
            $errors->writeln($e->getMessage(), OutputInterface::OUTPUT_RAW);

            return Command::INVALID;
        } catch (CoreError $e) {
            $errors->writeln($this->words->error($e), OutputInterface::OUTPUT_RAW);

            return $e instanceof InvalidFile ? Command::INVALID : Command::FAILURE;
        }
        $output->writeln($answer, OutputInterface::OUTPUT_RAW);

        return Command::SUCCESS;
    }
}
