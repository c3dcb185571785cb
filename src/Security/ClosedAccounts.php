<?php

declare(strict_types=1);

namespace ZigLane\App\Security;

use Symfony\Component\Security\Core\Authentication\Token\TokenInterface;
use Symfony\Component\Security\Core\Exception\CustomUserMessageAccountStatusException;
use Symfony\Component\Security\Core\User\UserCheckerInterface;
use Symfony\Component\Security\Core\User\UserInterface;
use ZigLane\App\Entity\Account;

/** Who has asked for his account to be deleted signs in no more; told only to who knows the password. */
final class ClosedAccounts implements UserCheckerInterface
{
    public function checkPreAuth(UserInterface $user): void
    {
    }

    public function checkPostAuth(UserInterface $user, ?TokenInterface $token = null): void
    {
        if ($user instanceof Account && null !== $user->getDeletedAt()) {
            throw new CustomUserMessageAccountStatusException(
                'This account is closed and will be deleted. The letter that was sent to you takes that back.',
            );
        }
    }
}
