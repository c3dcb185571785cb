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
use ZigLane\Core\Plan\PlanRehearsal;

/** Plays a plan file many times with the player's errors; exit code 2 and a line for each fault when the file is not valid. */
#[AsCommand('lane:rehearse', 'Plays a plan many times with the player\'s errors and prints how often it is finished')]
final class RehearseCommand extends Command
{
    private const MAX_BYTES = 4194304;

    protected function configure(): void
    {
        $this
            ->addArgument('file', InputArgument::REQUIRED, 'A *.plan.json file, or - for standard input')
            ->addOption('times', null, InputOption::VALUE_REQUIRED, 'How often', '200')
            ->addOption('replan', null, InputOption::VALUE_NONE, 'Plan again after every shot, from where the balls really lie')
            ->addOption('seed', null, InputOption::VALUE_REQUIRED, 'The same seed gives the same errors', '1');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $errors = $output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output;
        $file = $input->getArgument('file');
        \assert(\is_string($file));
        $faults = [];
        $times = InputFile::number($input, 'times', 1, 100000, $faults);
        $seed = InputFile::number($input, 'seed', 0, \PHP_INT_MAX, $faults);
        $json = InputFile::read($file, self::MAX_BYTES);
        if (null === $json) {
            $faults[] = \sprintf('%s: cannot be read; a plan file or - for standard input is allowed', $file);
        }
        if (null === $json || [] !== $faults) {
            $errors->writeln($faults, OutputInterface::OUTPUT_RAW);

            return Command::INVALID;
        }
        try {
            $plan = PlanFile::parse($json, self::MAX_BYTES);
            $replays = PlanRehearsal::of($plan->rack, $plan->place, $plan->group, $plan->legs, $times, $seed, true === $input->getOption('replan'));
        } catch (InvalidFile $e) {
            $errors->writeln($e->getMessage(), OutputInterface::OUTPUT_RAW);

            return Command::INVALID;
        } catch (LaneError $e) {
            $errors->writeln($e->getMessage(), OutputInterface::OUTPUT_RAW);

            return Command::FAILURE;
        }
        $output->writeln(json_encode([
            'format' => 'zig-lane/rehearsal',
            'version' => 1,
            'times' => $replays->tries,
            'runOut' => round($replays->chance(), 4),
            'interval' => array_map(static fn (float $edge): float => round($edge, 4), $replays->interval()),
            'ended' => $replays->ended,
        ], \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION), OutputInterface::OUTPUT_RAW);

        return Command::SUCCESS;
    }
}
