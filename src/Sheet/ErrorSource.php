<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\LogFitJob;
use ZigLane\App\Repository\LogFits;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\FitFile;
use ZigLane\Core\Player\ExecutionErrors;

/** Whose errors odds come from: a preset, the player's own numbers, or his log. */
final readonly class ErrorSource
{
    /** Shots that a fit must have used before plans go by it. */
    public const ENOUGH = 100;

    public function __construct(private LogFits $fits)
    {
    }

    /** The errors that the log shows, where it says enough; null where it does not. */
    public function ofLog(Account $owner): ?ExecutionErrors
    {
        $fit = $this->fits->latestDone($owner);

        return null === $fit || self::used($fit) < self::ENOUGH ? null : FitFile::player($fit->getAnswer() ?? []);
    }

    /** Those to plan with, if they are not those of the sheet: the log's, unless the player refuses. */
    public function toPlanWith(Account $owner): ?ExecutionErrors
    {
        return $owner->usesLog() ? $this->ofLog($owner) : null;
    }

    /** Where a player's errors come from, in words. */
    public function told(ExecutionErrors $player, Account $owner): Fact
    {
        foreach (ExecutionErrors::PRESETS as $name => $numbers) {
            if ($player == new ExecutionErrors(...$numbers)) {
                return new Fact('errors.preset', ['name' => $name]);
            }
        }
        if ($player == new ExecutionErrors()) {
            return new Fact('errors.preset', ['name' => 'casual player']);
        }
        $fit = $this->fits->latestDone($owner);

        return null !== $fit && $player == FitFile::player($fit->getAnswer() ?? [])
            ? new Fact('errors.log', ['shots' => self::used($fit)])
            : new Fact('errors.own');
    }

    private static function used(LogFitJob $fit): int
    {
        $used = $fit->getAnswer()['used'] ?? 0;

        return \is_int($used) ? $used : 0;
    }
}
