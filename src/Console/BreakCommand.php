<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use ZigLane\App\Words\Words;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\BreakShot;
use ZigLane\Core\Rules\BreakVerdict;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Table\Equipment;

/** Breaks a rack and prints the layout that is left as a rack file; with --seeds a report over so many breaks instead. */
#[AsCommand('lane:break', 'Breaks a rack and prints the layout after it as a rack file')]
final class BreakCommand extends Command
{
    private const MOST_SEEDS = 100000;

    public function __construct(private readonly Words $words)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this
            ->addOption(
                'game',
                null,
                InputOption::VALUE_REQUIRED,
                'One of '.implode(', ', array_column(Game::cases(), 'value')),
                Game::NineBall->value,
            )
            ->addOption('seed', null, InputOption::VALUE_REQUIRED, 'A whole number; the same seed breaks the same', '1')
            ->addOption('seeds', null, InputOption::VALUE_REQUIRED, 'Report on so many breaks, from the seed on');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $errors = $output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output;
        $game = Game::tryFrom(self::word($input, 'game'));
        $seed = filter_var(self::word($input, 'seed'), \FILTER_VALIDATE_INT);
        $seeds = null === $input->getOption('seeds')
            ? null
            : filter_var(
                self::word($input, 'seeds'),
                \FILTER_VALIDATE_INT,
                ['options' => ['min_range' => 1, 'max_range' => self::MOST_SEEDS]],
            );
        $faults = array_filter([
            null === $game
                ? \sprintf('game: found %s; allowed: %s', self::word($input, 'game'), implode(', ', array_column(Game::cases(), 'value')))
                : null,
            false === $seed ? \sprintf('seed: found %s; a whole number is allowed', self::word($input, 'seed')) : null,
            false === $seeds ? \sprintf('seeds: found %s; 1 to %d are allowed', self::word($input, 'seeds'), self::MOST_SEEDS) : null,
        ]);
        if (null === $game || false === $seed || false === $seeds) {
            $errors->writeln($faults, OutputInterface::OUTPUT_RAW);

            return Command::INVALID;
        }
        $equipment = new Equipment();
        $player = new ExecutionErrors();
        try {
            if (null !== $seeds) {
                $this->report($game, $seed, $seeds, $equipment, $player, $output);
            } else {
                $break = BreakShot::play($game, $equipment, $player, new Randomness($seed));
                foreach ($this->told($break->verdict($game)) as $line) {
                    $errors->writeln($line, OutputInterface::OUTPUT_RAW);
                }
                $output->writeln(
                    (new RackFile(
                        $break->rackAfter($game, $equipment, $player),
                        \sprintf('%s break, seed %d', $this->words->said('name.game.'.$game->value), $seed),
                    ))->write(),
                    OutputInterface::OUTPUT_RAW,
                );
            }
        } catch (CoreError $e) {
            $errors->writeln($this->words->error($e), OutputInterface::OUTPUT_RAW);

            return Command::FAILURE;
        }

        return Command::SUCCESS;
    }

    /** @return list<string> what the break comes to, where that is more than a layout */
    private function told(BreakVerdict $verdict): array
    {
        $facts = [];
        if ($verdict->isWon) {
            $facts[] = new Fact('break.won');
        } elseif ([] !== $verdict->spots) {
            $facts[] = new Fact('break.spotted', ['balls' => $verdict->spots]);
        }
        if (!$verdict->isLegal) {
            $facts[] = new Fact('break.soft', ['driven' => $verdict->driven]);
        }
        foreach ($verdict->choices as $choice) {
            $facts[] = new Fact('break.'.$choice->value);
        }

        return array_map($this->words->of(...), $facts);
    }

    private function report(Game $game, int $seed, int $seeds, Equipment $equipment, ExecutionErrors $player, OutputInterface $output): void
    {
        $made = $spread = $scratches = $dry = $wings = 0.0;
        for ($i = 0; $i < $seeds; ++$i) {
            $break = BreakShot::play($game, $equipment, $player, new Randomness($seed + $i));
            $made += $break->made();
            $spread += $break->spread();
            $scratches += $break->outcome->isScratch() ? 1 : 0;
            $dry += 0 === $break->made() ? 1 : 0;
            $wings += $break->wingWent() ? 1 : 0;
        }
        $output->writeln([
            \sprintf('%s, %d breaks from seed %d', $this->words->said('name.game.'.$game->value), $seeds, $seed),
            \sprintf('balls made a break      %.2f', $made / $seeds),
            \sprintf('breaks without a ball   %.0f %%', 100 * $dry / $seeds),
            \sprintf('scratches               %.0f %%', 100 * $scratches / $seeds),
            \sprintf('distance between balls  %.2f m', $spread / $seeds),
            ...(Game::NineBall === $game ? [\sprintf('ball on the wing made   %.0f %%', 100 * $wings / $seeds)] : []),
        ], OutputInterface::OUTPUT_RAW);
    }

    private static function word(InputInterface $input, string $option): string
    {
        $value = $input->getOption($option);

        return \is_string($value) ? $value : '';
    }
}
