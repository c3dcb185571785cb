<?php

/*
 * Computes what workers compute, from fixed seeds, in a console as bin/console is one, with handlers for every signal that workers may get,
 * and prints a hash of each result: what signals.php disturbs. `--shots` plays single shots in place of plans, fits and pars. `--async`
 * turns asynchronous signals on, as the console would by itself: results are then wrong where registers are allocated over a function.
 * Use: steady.php ROUNDS [--shots] [--async]
 */

declare(strict_types=1);

use Symfony\Component\Console\Application;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Command\SignalableCommandInterface;
use Symfony\Component\Console\Input\ArrayInput;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\EventDispatcher\EventDispatcher;
use ZigLane\Core\Fit\LogFitter;
use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Format\FitFile;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Plan\Planning;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Practice\ParRuns;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;

$root = dirname(__DIR__, 2);
require $root.'/vendor/autoload.php';

$options = array_slice($argv, 2);
$rounds = max(1, (int) ($argv[1] ?? 1));

/** @var list<array{string, Closure(): string}> $pieces */
$pieces = [];
if (in_array('--shots', $options, true)) {
    $table = new Table();
    $chance = new Chance(11);
    for ($i = 0; $i < 60; ++$i) {
        $layout = $table->randomLayout($chance, 9, 0.2);
        [$direction, $speed] = [$chance->float(0, 360), $chance->float(0.5, 6.0)];
        $strike = Strike::degrees($direction, $speed, $chance->float(-0.3, 0.3), $chance->float(-0.3, 0.3), 3.0);
        $pieces[] = ["shot $i", static function () use ($layout, $strike): string {
            $bits = '';
            foreach ((new EventSimulator())->play($layout, $strike)->events as $event) {
                $bits .= pack('EEE', $event->time, $event->at->x, $event->at->y);
            }

            return $bits;
        }];
    }
} else {
    $log = json_decode((string) file_get_contents($root.'/demo/player.log.json'), true);
    $log['outings'] = array_slice($log['outings'], -1);
    $pieces = [
        ['plan', static function () use ($root): string {
            $rack = RackFile::parse((string) file_get_contents($root.'/demo/3-last-two-rail.rack.json'), 1 << 20)->rack;
            $planning = new Planning($rack, seed: 5);
            for ($block = 0; $block < 12 && $planning->step(); ++$block) {
            }

            return (new PlanFile($planning->plans(most: 2, rounds: 2), 0.0))->write();
        }],
        ['fit', static fn (): string => json_encode(FitFile::toArray(LogFitter::of(LogFile::parse(json_encode($log), 1 << 24))))],
        ['par', static fn (): string => json_encode((new ParRuns(
            DrillFile::parse((string) file_get_contents($root.'/drills/slalom.drill.json'), 1 << 20)->at(0),
            new ShotSolver(),
            new ExecutionErrors(),
        ))->block(0, 25))],
    ];
}

#[AsCommand('steady')]
final class steady extends Command implements SignalableCommandInterface
{
    public int $handled = 0;

    /** @param list<array{string, Closure(): string}> $pieces */
    public function __construct(private readonly array $pieces, private readonly int $rounds)
    {
        parent::__construct();
    }

    public function getSubscribedSignals(): array
    {
        return [\SIGTERM, \SIGINT, \SIGQUIT, \SIGALRM, \SIGUSR1, \SIGUSR2];
    }

    public function handleSignal(int $signal, int|false $previousExitCode = 0): int|false
    {
        ++$this->handled;

        return false;
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        fwrite(\STDERR, "ready\n");
        $units = [];
        for ($round = 0; $round < $this->rounds; ++$round) {
            foreach ($this->pieces as [$name, $piece]) {
                try {
                    $units[] = [$name, hash('sha256', $piece())];
                } catch (Throwable $e) {
                    $units[] = [$name, $e::class.': '.$e->getMessage()];
                }
                pcntl_signal_dispatch();
            }
        }
        echo json_encode(['handled' => $this->handled, 'units' => $units]), "\n";

        return 0;
    }
}

$application = new Application();
$application->setDispatcher(new EventDispatcher());
$application = (require $root.'/config/console.php')($application);
$application->setAutoExit(false);
$application->setCatchExceptions(false);
$steady = new Steady($pieces, $rounds);
method_exists($application, 'addCommand') ? $application->addCommand($steady) : $application->add($steady);
if (in_array('--async', $options, true)) {
    pcntl_async_signals(true);
}
exit($application->run(new ArrayInput(['command' => 'steady'])));
