<?php

declare(strict_types=1);

namespace ZigLane\App\Breaking;

use Symfony\Component\HttpFoundation\InputBag;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\Sheet\ErrorSource;
use ZigLane\Core\Breaking\BreakOffShot;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Table\Equipment;

/** What is asked of a break shot of straight pool: how it lies, table and player. What is not understood is as usual. */
final readonly class BreakOffRequest
{
    private function __construct(
        public string $usual,
        public BreakOffShot $shot,
        public ?OwnTable $table,
        public Equipment $equipment,
        public ExecutionErrors $player,
        public string $whose,
    ) {
    }

    /** @param InputBag<string> $input */
    public static function of(InputBag $input, Account $account, OwnTables $tables, ErrorSource $errors): self
    {
        $usual = $input->getString('lie');
        $usual = isset(BreakOffShot::USUAL[$usual]) ? $usual : 'beside';
        $table = $tables->ownedBy($account, $input->getString('table'));
        [$whose, $player] = BreakRequest::player($input, $errors->ofLog($account));

        return new self(
            $usual, BreakOffShot::fromArray($input->all(), $usual), $table, $table?->getEquipment() ?? new Equipment(), $player, $whose,
        );
    }

    /** @return array<string, string|float> as the page's address has it */
    public function query(): array
    {
        return [
            'lie' => $this->usual, 'player' => $this->whose, 'table' => (string) $this->table?->getId(),
            ...array_map(
                static fn (float|string $value): float|string => \is_float($value) ? round($value, 3) : $value,
                $this->shot->toArray(),
            ),
        ];
    }
}
