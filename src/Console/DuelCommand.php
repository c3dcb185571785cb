<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Exception\InvalidOptionException;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use ZigLane\Core\Decide\Duel;
use ZigLane\Core\Decide\Duellist;
use ZigLane\Core\Decide\DuelScore;
use ZigLane\Core\Decide\PositionValue;
use ZigLane\Core\Decide\Refusal;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Shot\ShotSolver;

/** Plays a rack out between two simulated players, many times, each beginning every other time. */
#[AsCommand('lane:duel', 'Plays a rack out between two simulated players who decide by different policies and prints who wins')]
final class DuelCommand extends RackCommand
{
    use NamesPlayers;

    private const POLICIES = ['safeties', 'no-safeties'];

    protected function numbers(): array
    {
        return [
            'games' => [1, 10000, 100, 'Racks that are played'],
            'seed' => [0, \PHP_INT_MAX, 1, 'The same seed plays the same racks'],
        ];
    }

    protected function configure(): void
    {
        parent::configure();
        $this->addOption('a', null, InputOption::VALUE_REQUIRED, 'The first player: '.implode(' or ', self::POLICIES), 'safeties');
        $this->addOption('b', null, InputOption::VALUE_REQUIRED, 'The second player', 'no-safeties');
        $this->addOption('opponent', null, InputOption::VALUE_REQUIRED, 'Whose errors the second has: '.self::presets().'; else the same');
    }

    protected function answer(string $content, array $numbers, InputInterface $input): string
    {
        $rack = RackFile::parse($content, $this->maxBytes())->rack;
        $plays = [$this->playsSafe($input, 'a'), $this->playsSafe($input, 'b')];
        $opponent = $this->named($input, 'opponent') ?? $rack->player;
        $refusal = Refusal::of($rack);
        if (null !== $refusal) {
            throw $refusal;
        }
        $solver = new ShotSolver($rack->equipment);
        $value = new PositionValue($rack, [$rack->player, $opponent], $solver);
        $duel = new Duel($rack, $value, $solver, [
            new Duellist($rack, $value, $solver, 0, $plays[0]),
            new Duellist($rack, $value, $solver, 1, $plays[1]),
        ]);
        $isPool = $rack->game->rules()->countsBalls;
        $score = new DuelScore();
        for ($game = 0; $game < $numbers['games']; ++$game) {
            $score->add($duel->play($game % 2, ($numbers['seed'] * 7919 + $game) & 0x7FFFFFFF), $isPool);
        }

        return $this->printed($score, $isPool, $input);
    }

    private function printed(DuelScore $score, bool $isPool, InputInterface $input): string
    {
        return json_encode([
            'format' => 'zig-lane/duel',
            'version' => 1,
            'a' => $input->getOption('a'),
            'b' => $input->getOption('b'),
            'games' => $score->games,
            'won' => $score->won(),
            'drawn' => $score->drawn(),
            'share' => round($score->share(), 4),
            'interval' => array_map(static fn (float $edge): float => round($edge, 4), $score->interval()),
            ...($isPool ? [
                'balls' => round($score->mean(), 2),
                'ballsInterval' => array_map(static fn (float $edge): float => round($edge, 2), $score->meanInterval()),
            ] : []),
        ], \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES);
    }

    private function playsSafe(InputInterface $input, string $option): bool
    {
        $policy = $input->getOption($option);
        if (!\in_array($policy, self::POLICIES, true)) {
            throw new InvalidOptionException(\sprintf(
                '%s: found "%s"; %s are allowed',
                $option,
                \is_string($policy) ? $policy : '',
                implode(', ', self::POLICIES),
            ));
        }

        return 'safeties' === $policy;
    }
}
