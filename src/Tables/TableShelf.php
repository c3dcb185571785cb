<?php

declare(strict_types=1);

namespace ZigLane\App\Tables;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Messenger\MessageBusInterface;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Message\FitTable;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Format\TableFile;

/** The tables of an account: every change is kept whole or not at all. */
final readonly class TableShelf
{
    private const MOST = 100;
    private const MOST_TESTS = 100;

    public function __construct(
        private OwnTables $tables,
        private EntityManagerInterface $manager,
        private MessageBusInterface $bus,
        private ClockInterface $clock,
    ) {
    }

    public function keep(Account $account, TableFile $file): OwnTable
    {
        if (\count($this->tables->all($account)) >= self::MOST) {
            throw Refused::because('tooManyTables', ['most' => self::MOST]);
        }
        $table = new OwnTable($account, $file, $this->clock->now());
        $this->manager->persist($table);
        $this->manager->flush();

        return $table;
    }

    public function change(OwnTable $table, TableFile $file): void
    {
        $table->change($file);
        $this->manager->flush();
    }

    /** @param array<mixed> $test as in a table-tests file */
    public function record(OwnTable $table, array $test): void
    {
        $tests = $table->getTests();
        if (\count($tests) >= self::MOST_TESTS) {
            throw Refused::because('tooManyTests', ['most' => self::MOST_TESTS]);
        }
        $table->keepTests([...$tests, $test], $this->clock->now());
        $this->manager->flush();
    }

    public function forget(OwnTable $table, int $number): void
    {
        $tests = $table->getTests();
        unset($tests[$number]);
        $table->keepTests(array_values($tests), $table->getTestedAt() ?? $this->clock->now());
        $this->manager->flush();
    }

    /** Asks for the table to be found from its tests; what is under way is waited for. */
    public function ask(OwnTable $table): void
    {
        if ([] === $table->getTests()) {
            throw Refused::because('noTests');
        }
        if (null === $table->getAskedAt()) {
            $table->ask($this->clock->now());
            $this->manager->flush();
            $this->bus->dispatch(new FitTable((string) $table->getId(), $table->getOwner()->party()));
        }
    }

    public function take(OwnTable $table): void
    {
        $table->takeFit();
        $this->manager->flush();
    }

    public function playOn(OwnTable $table, bool $isHere): void
    {
        $table->getOwner()->playOn($isHere ? $table : null);
        $this->manager->flush();
    }

    public function delete(OwnTable $table): void
    {
        $this->manager->remove($table);
        $this->manager->flush();
    }
}
