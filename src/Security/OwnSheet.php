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
use ZigLane\App\Repository\RackSheetRepository;

/** Gives a controller the sheet named in the address, only to its owner: for anyone else it does not exist. */
#[AsTaggedItem(priority: 200)]
final readonly class OwnSheet implements ValueResolverInterface
{
    public function __construct(private RackSheetRepository $sheets, private TokenStorageInterface $tokens)
    {
    }

    /** @return list<RackSheet> */
    public function resolve(Request $request, ArgumentMetadata $argument): iterable
    {
        if (RackSheet::class !== $argument->getType()) {
            return [];
        }
        $account = $this->tokens->getToken()?->getUser();
        $id = $request->attributes->get('id');
        $sheet = $account instanceof Account && \is_string($id) ? $this->sheets->ownedBy($account, $id) : null;

        return [$sheet ?? throw new NotFoundHttpException('There is no such rack sheet.')];
    }
}
