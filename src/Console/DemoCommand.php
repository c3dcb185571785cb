<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\LogFitJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Log\LogImport;
use ZigLane\App\Log\TriesEditor;
use ZigLane\App\Log\TryResult;
use ZigLane\App\Message\CostRack;
use ZigLane\App\Message\FitLog;
use ZigLane\App\Repository\AccountRepository;
use ZigLane\App\Sheet\Planner;
use ZigLane\App\Sheet\PlanRequest;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\App\Tables\TableShelf;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Table\Equipment;

/** Loads the demo player and the racks in demo/, where the demo is switched on; does nothing when they are there. */
#[AsCommand('lane:demo', 'Loads the demo player and the demo racks')]
final class DemoCommand extends Command
{
    /** For each plan that is shipped. */
    private const SECONDS = 40;

    public function __construct(
        private readonly AccountRepository $accounts,
        private readonly EntityManagerInterface $manager,
        private readonly SheetEditor $editor,
        private readonly Planner $planner,
        private readonly LogImport $import,
        private readonly TriesEditor $tries,
        private readonly DemoPractice $practice,
        private readonly TableShelf $tables,
        private readonly DemoComputed $computed,
        private readonly MessageBusInterface $bus,
        private readonly ClockInterface $clock,
        private readonly bool $demo,
        private readonly DemoClass $class,
        #[Autowire('%kernel.project_dir%/demo')]
        private readonly string $folder,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('plan', null, InputOption::VALUE_NONE, 'With plans, fits and pars, as they are shipped');
        $this->addOption('anew', null, InputOption::VALUE_NONE, 'With --plan: ask the workers for them instead');
        $this->addOption('write', null, InputOption::VALUE_NONE, 'Write what the workers have found of the demo into demo/computed.json');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        if (true === $input->getOption('write')) {
            $output->writeln(json_encode($this->computed->write(), \JSON_THROW_ON_ERROR));

            return Command::SUCCESS;
        }
        $isShipped = $this->computed->isThere() && true !== $input->getOption('anew');
        $isAsked = true === $input->getOption('plan') && !$isShipped;
        if (!$this->demo || null !== $this->accounts->byEmail(Account::DEMO_EMAIL)) {
            return Command::SUCCESS;
        }
        $player = new Account(Account::DEMO_EMAIL, 'Demo player', $this->clock->now());
        $this->manager->persist($player);
        $this->manager->flush();
        foreach (array_reverse(glob($this->folder.'/*.rack.json') ?: []) as $path) {
            $file = RackFile::parse((string) file_get_contents($path));
            $sheet = $this->editor->create(
                $player,
                $file->name ?? basename($path, '.rack.json'),
                $file->rack,
                Uuid::v4(),
                $file->shot,
                $file->later,
            );
            $tries = preg_replace('/\.rack\.json$/', '.tries.json', $path);
            if (null !== $tries && is_file($tries)) {
                $this->tried($sheet, $tries);
            }
            if ($isAsked) {
                null !== $tries && is_file($tries)
                    ? $this->planner->weigh($sheet, null, false)
                    : $this->planner->ask($sheet, new PlanRequest(seconds: self::SECONDS), false);
            }
        }
        $this->practised($player);
        $this->tested($player, $isAsked);
        $this->import->take($player, LogFile::parse((string) file_get_contents($this->folder.'/player.log.json')));
        if ($isAsked) {
            $this->work($player);
        }
        $this->class->teach($player, $isAsked);
        if (true === $input->getOption('plan') && $isShipped) {
            $this->computed->take();
        }
        $output->writeln('The demo player and the demo racks are loaded.');

        return Command::SUCCESS;
    }

    /** Six weeks of scored drills (tools/demo-practice.php). */
    private function practised(Account $player): void
    {
        $sessions = json_decode((string) file_get_contents($this->folder.'/practice.json'), true, 12, \JSON_THROW_ON_ERROR);
        $this->practice->record($player, \is_array($sessions) ? $sessions : [], 19, 10);
    }

    /** A table with its tests (tools/demo-table.php), and found from them by a worker. */
    private function tested(Account $player, bool $isFound): void
    {
        $tests = json_decode((string) file_get_contents($this->folder.'/back-room.table-tests.json'), true, 12, \JSON_THROW_ON_ERROR);
        \assert(\is_array($tests) && \is_array($tests['tests'] ?? null));
        $file = new TableFile('Back room', new Equipment(), 'Beside the window; the cloth is three years old.');
        $table = $this->tables->keep($player, $file);
        $table->hangCamera(true);
        foreach ($tests['tests'] as $test) {
            $this->tables->record($table, \is_array($test) ? $test : []);
        }
        if ($isFound) {
            $this->tables->ask($table);
        }
    }

    /** Ten tries of each option of a sheet (tools/demo-tries.php). */
    private function tried(RackSheet $sheet, string $path): void
    {
        $sets = json_decode((string) file_get_contents($path), true, 8, \JSON_THROW_ON_ERROR);
        $evening = 0;
        foreach (\is_array($sets) ? $sets : [] as $set) {
            if (!\is_array($set) || !\is_array($set['shot'] ?? null) || !\is_array($set['results'] ?? null)) {
                continue;
            }
            $this->editor->keepLegs($sheet, [RackFile::shotFromArray($set['shot'])], $sheet->getVersion());
            $rack = $this->tries->begin($sheet, Uuid::v7(), null);
            foreach ($set['results'] as $word) {
                $result = \is_string($word) ? TryResult::tryFrom($word) : null;
                if (null !== $result) {
                    $this->tries->add($rack, Uuid::v7(), $result);
                }
            }
            // Ten tries take a quarter of an hour, on an evening of last week.
            $this->manager->getConnection()->executeStatement(
                'UPDATE shot SET shot_at = TIMESTAMP(CURRENT_DATE - INTERVAL 8 DAY) + INTERVAL (19 * 3600 + 1200 * ? + 95 * number) SECOND'
                .' WHERE rack_id = ?',
                [$evening++, $rack->getId()->toBinary()],
            );
        }
    }

    /** His errors are found in his log, and what the shots of his last rack cost, so that these pages show something true. */
    private function work(Account $player): void
    {
        $fit = new LogFitJob($player, $player->getHalfLife(), $this->clock->now());
        $this->manager->persist($fit);
        $this->manager->flush();
        $this->bus->dispatch(new FitLog((string) $fit->getId(), (string) $player->getId()));
        $racks = $this->manager->getRepository(ShotRack::class)->findBy(
            ['owner' => $player, 'kind' => RackKind::Practice],
            ['startedAt' => 'DESC'],
            1,
        );
        foreach ($racks as $rack) {
            $this->bus->dispatch(new CostRack((string) $rack->getId(), (string) $player->getId()));
        }
    }
}
