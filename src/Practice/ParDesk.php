<?php

declare(strict_types=1);

namespace ZigLane\App\Practice;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Messenger\MessageBusInterface;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\DrillPar;
use ZigLane\App\Message\PlayPar;
use ZigLane\App\Repository\DrillPars;
use ZigLane\App\Repository\DrillSessions;
use ZigLane\App\Sheet\ErrorSource;
use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Player\ExecutionErrors;

/** Pars of drills: those that are known, and those that are asked for. */
final readonly class ParDesk
{
    /** Who a player is compared with where his log does not say enough. */
    public const USUAL = 'club player';
    public const OWN = 'you';
    private const SCORED = 12;

    public function __construct(
        private DrillPars $pars,
        private DrillSessions $sessions,
        private DrillShelf $shelf,
        private ErrorSource $errors,
        private EntityManagerInterface $manager,
        private MessageBusInterface $bus,
        private ClockInterface $clock,
    ) {
    }

    /** @return array<string, ExecutionErrors> the levels, and the player's own errors where his log shows them */
    public function hands(Account $account): array
    {
        $hands = ExecutionErrors::presets();
        $own = $this->errors->ofLog($account);

        return null === $own ? $hands : $hands + [self::OWN => $own];
    }

    /** Whose par a player is held against: his own, or a club player's. */
    public function whose(Account $account): string
    {
        return null === $this->errors->ofLog($account) ? self::USUAL : self::OWN;
    }

    /** @return array<string, DrillPar> by hand: those that are there or under way */
    public function known(Account $account, DrillFile $file, int $level): array
    {
        $known = [];
        foreach ($this->hands($account) as $name => $player) {
            $par = $this->pars->of($file->hash(), $level, $player, $account->getEquipment());
            if (null !== $par) {
                $known[$name] = $par;
            }
        }

        return $known;
    }

    public function of(Account $account, DrillFile $file, int $level): ?DrillPar
    {
        return $this->pars->of($file->hash(), $level, $this->hands($account)[$this->whose($account)], $account->getEquipment());
    }

    /** Asks for the pars of what was scored lately: the player's errors are new. */
    public function askForScored(Account $account): void
    {
        $asked = [];
        foreach (array_reverse($this->sessions->scored($account, $this->clock->now()->modify('-6 weeks'))) as $session) {
            $key = $session->getVersion()->getHash().$session->getLevel();
            if (!isset($asked[$key]) && \count($asked) < self::SCORED) {
                $asked[$key] = true;
                $this->ask($account, $session->getVersion()->getFile(), $session->getLevel());
            }
        }
    }

    /** Asks for those that are not there yet. */
    public function ask(Account $account, DrillFile $file, int $level): void
    {
        $version = $this->shelf->version($file);
        foreach ($this->hands($account) as $player) {
            if (null !== $this->pars->of($file->hash(), $level, $player, $account->getEquipment())) {
                continue;
            }
            $par = new DrillPar($version, $level, $player, $this->clock->now(), $account->getEquipment());
            $isNew = 1 === $this->manager->getConnection()->executeStatement(
                'INSERT IGNORE INTO drill_par (id, version, level, hand, player, equipment, scores, created_at)'
                .' VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
                [
                    $par->getId()->toBinary(), $version->getHash(), $level, $par->getHand(),
                    json_encode($player->toArray(), \JSON_THROW_ON_ERROR), $par->getTable(), '{}',
                    $this->clock->now()->format('Y-m-d H:i:s'),
                ],
            );
            if ($isNew) {
                $this->bus->dispatch(new PlayPar((string) $par->getId(), $account->party()));
            }
        }
    }
}
