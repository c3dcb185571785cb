<?php

declare(strict_types=1);

namespace ZigLane\App\Breaking;

use Symfony\Component\HttpFoundation\InputBag;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\Sheet\ErrorSource;
use ZigLane\Core\Breaking\BreakStroke;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Table\Equipment;

/** What the break page asks for: game, table, stroke, rack and player. What is not understood is as usual. */
final readonly class BreakRequest
{
    /** Gaps of the rack, metres: frozen, as it is racked with care, poor. */
    public const RACKS = ['frozen' => 0.0, 'careful' => Racking::LOOSENESS, 'poor' => 0.0004];
    public const USUAL = 'club player';

    private function __construct(
        public Game $game,
        public BreakStroke $stroke,
        public string $rack,
        public ?OwnTable $table,
        public Equipment $equipment,
        public ExecutionErrors $player,
        public string $whose,
    ) {
    }

    /** @param InputBag<string> $input */
    public static function of(InputBag $input, Account $account, OwnTables $tables, ErrorSource $errors): self
    {
        $game = Game::tryFrom($input->getString('game')) ?? Game::NineBall;
        $table = $tables->ownedBy($account, $input->getString('table'));
        [$whose, $player] = self::player($input, $errors->ofLog($account));
        $rack = $input->getString('rack', 'careful');

        return new self(
            $game,
            BreakStroke::fromArray($input->all(), BreakStroke::usual($game)),
            isset(self::RACKS[$rack]) ? $rack : 'careful',
            $table,
            $table?->getEquipment() ?? new Equipment(),
            $player,
            $whose,
        );
    }

    /**
     * Whose errors are asked for.
     *
     * @internal
     *
     * @param InputBag<string> $input
     *
     * @return array{string, ExecutionErrors} "you" or the name of a simulated player
     */
    public static function player(InputBag $input, ?ExecutionErrors $own): array
    {
        $presets = ExecutionErrors::presets();
        $whose = $input->getString('player', null === $own ? self::USUAL : 'you');
        if ('you' === $whose && null !== $own) {
            return ['you', $own];
        }
        $whose = isset($presets[$whose]) ? $whose : self::USUAL;

        return [$whose, $presets[$whose] ?? new ExecutionErrors()];
    }

    public function looseness(): float
    {
        return self::RACKS[$this->rack];
    }

    /** @return array<string, string|float> as the page's address has it */
    public function query(): array
    {
        return [
            'game' => $this->game->value, 'rack' => $this->rack, 'player' => $this->whose, 'table' => (string) $this->table?->getId(),
            ...array_map(static fn (float $value): float => round($value, 3), $this->stroke->toArray()),
        ];
    }
}
