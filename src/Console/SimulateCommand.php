<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use ZigLane\Core\Error\LaneError;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\OutcomeFile;
use ZigLane\Core\Format\ShotFile;
use ZigLane\Core\Motion\EventSimulator;

/** Reads a shot file and prints its outcome; exit code 2 and a line for each fault when the file is not valid. */
#[AsCommand('lane:simulate', 'Plays the shot in a shot file and prints the outcome as JSON')]
final class SimulateCommand extends Command
{
    private const MAX_BYTES = 65536;

    protected function configure(): void
    {
        $this->addArgument('file', InputArgument::REQUIRED, 'A *.shot.json file, or - for standard input');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $errors = $output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output;
        $file = $input->getArgument('file');
        \assert(\is_string($file));
        $json = InputFile::read($file, self::MAX_BYTES);
        if (null === $json) {
            $errors->writeln(\sprintf('%s: cannot be read; a shot file or - for standard input is allowed', $file), OutputInterface::OUTPUT_RAW);

            return Command::INVALID;
        }
        try {
            $shot = ShotFile::parse($json, self::MAX_BYTES);
            $outcome = (new EventSimulator($shot->table, $shot->balls))->play($shot->layout, $shot->strike);
        } catch (InvalidFile $e) {
            $errors->writeln($e->getMessage(), OutputInterface::OUTPUT_RAW);

            return Command::INVALID;
        } catch (LaneError $e) {
            $errors->writeln($e->getMessage(), OutputInterface::OUTPUT_RAW);

            return Command::FAILURE;
        }
        $output->writeln(OutcomeFile::write($outcome), OutputInterface::OUTPUT_RAW);

        return Command::SUCCESS;
    }
}
