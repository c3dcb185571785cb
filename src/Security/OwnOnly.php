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
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Repository\ShotLog;

/** Gives a controller the sheet or the shot rack named in the address, only to its owner: for anyone else it does not exist. */
#[AsTaggedItem(priority: 200)]
final readonly class OwnOnly implements ValueResolverInterface
{
    public function __construct(private RackSheetRepository $sheets, private ShotLog $log, private TokenStorageInterface $tokens)
    {
    }

    /** @return list<RackSheet|ShotRack> */
    public function resolve(Request $request, ArgumentMetadata $argument): iterable
    {
        [$find, $missing] = match ($argument->getType()) {
            RackSheet::class => [$this->sheets->ownedBy(...), 'There is no such rack sheet.'],
            ShotRack::class => [$this->log->rackOf(...), 'There is no such rack.'],
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
