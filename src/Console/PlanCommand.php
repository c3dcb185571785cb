<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use ZigLane\Core\Error\LaneError;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Plan\Planning;

/** Plans the run-out of a rack file; exit code 2 and a line for each fault when the file is not valid. */
#[AsCommand('lane:plan', 'Plans the run-out of a rack file and prints a plan file')]
final class PlanCommand extends Command
{
    private const MAX_BYTES = 65536;
    /** Share of the time that is searched; the rest is for the odds and reasons of every leg. */
    private const SEARCHED = 0.8;

    protected function configure(): void
    {
        $this
            ->addArgument('file', InputArgument::REQUIRED, 'A *.rack.json file, or - for standard input')
            ->addOption('seconds', null, InputOption::VALUE_REQUIRED, 'How long it may take; a first plan is made whatever it takes', '10')
            ->addOption('seed', null, InputOption::VALUE_REQUIRED, 'The same seed and number of blocks give the same plan', '1')
            ->addOption('blocks', null, InputOption::VALUE_REQUIRED, 'Blocks of twenty replays at the most', '1000');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $errors = $output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output;
        $file = $input->getArgument('file');
        \assert(\is_string($file));
        $faults = [];
        $seconds = InputFile::number($input, 'seconds', 1, 3600, $faults);
        $seed = InputFile::number($input, 'seed', 0, \PHP_INT_MAX, $faults);
        $blocks = InputFile::number($input, 'blocks', 0, 1000, $faults);
        $json = InputFile::read($file, self::MAX_BYTES);
        if (null === $json) {
            $faults[] = \sprintf('%s: cannot be read; a rack file or - for standard input is allowed', $file);
        }
        if (null === $json || [] !== $faults) {
            $errors->writeln($faults, OutputInterface::OUTPUT_RAW);

            return Command::INVALID;
        }
        $start = hrtime(true);
        try {
            $planning = new Planning(RackFile::parse($json, self::MAX_BYTES)->rack, seed: $seed);
            for ($block = 0; $block < $blocks && hrtime(true) - $start < 1e9 * self::SEARCHED * $seconds && $planning->step(); ++$block) {
            }
            $plans = $planning->plans();
        } catch (InvalidFile $e) {
            $errors->writeln($e->getMessage(), OutputInterface::OUTPUT_RAW);

            return Command::INVALID;
        } catch (LaneError $e) {
            $errors->writeln($e->getMessage(), OutputInterface::OUTPUT_RAW);

            return Command::FAILURE;
        }
        if ([] === $plans) {
            $errors->writeln('There is nothing to plan: no ball on the table can be shot. Lay out the cue ball, or set ballInHand.', OutputInterface::OUTPUT_RAW);

            return Command::FAILURE;
        }
        $output->writeln(PlanFile::write($plans, (hrtime(true) - $start) / 1e9, $planning->search->simulated()), OutputInterface::OUTPUT_RAW);

        return Command::SUCCESS;
    }
}
