<?php

declare(strict_types=1);

namespace ZigLane\App\Security;

use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Controller\ValueResolverInterface;
use Symfony\Component\HttpKernel\ControllerMetadata\ArgumentMetadata;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Security\Core\Authentication\Token\Storage\TokenStorageInterface;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Repository\DrillSessions;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Repository\ShotLog;

/**
 * Gives a controller the sheet, the rack, the table or the drill's session named in the address, only to its owner: for others it does
 * not exist.
 */
#[AsTaggedItem(priority: 200)]
final readonly class OwnOnly implements ValueResolverInterface
{
    public function __construct(
        private RackSheetRepository $sheets,
        private ShotLog $log,
        private DrillSessions $sessions,
        private OwnTables $tables,
        private TokenStorageInterface $tokens,
    ) {
    }

    /** @return list<RackSheet|ShotRack|DrillSession|OwnTable> */
    public function resolve(Request $request, ArgumentMetadata $argument): iterable
    {
        [$find, $missing] = match ($argument->getType()) {
            RackSheet::class => [$this->sheets->ownedBy(...), 'There is no such rack sheet.'],
            ShotRack::class => [$this->log->rackOf(...), 'There is no such rack.'],
            OwnTable::class => [$this->tables->ownedBy(...), 'There is no such table.'],
            DrillSession::class => [$this->sessions->ownedBy(...), 'There is no such practice.'],
            default => [null, ''],
        };
        if (null === $find) {
            return [];
        }
        $account = $this->tokens->getToken()?->getUser();
        $id = $request->attributes->get('id');

        $own = $account instanceof Account && \is_string($id) ? $find($account, $id) : null;

        return [$own ?? throw new NotFoundHttpException($missing)];
    }
}
