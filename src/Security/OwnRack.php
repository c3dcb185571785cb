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
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Repository\ShotLog;

/** Gives a controller the shot rack named in the address, only to its owner: for anyone else it does not exist. */
#[AsTaggedItem(priority: 200)]
final readonly class OwnRack implements ValueResolverInterface
{
    public function __construct(private ShotLog $log, private TokenStorageInterface $tokens)
    {
    }

    /** @return list<ShotRack> */
    public function resolve(Request $request, ArgumentMetadata $argument): iterable
    {
        if (ShotRack::class !== $argument->getType()) {
            return [];
        }
        $account = $this->tokens->getToken()?->getUser();
        $id = $request->attributes->get('id');
        $rack = $account instanceof Account && \is_string($id) ? $this->log->rackOf($account, $id) : null;

        return [$rack ?? throw new NotFoundHttpException('There is no such rack.')];
    }
}
