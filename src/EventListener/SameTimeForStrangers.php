<?php

declare(strict_types=1);

namespace ZigLane\App\EventListener;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\PasswordHasher\Hasher\PasswordHasherFactoryInterface;
use Symfony\Component\Security\Core\Exception\UserNotFoundException;
use Symfony\Component\Security\Http\Event\LoginFailureEvent;
use ZigLane\App\Entity\Account;

/** An address without an account takes as long to be refused as one with a wrong password, so that nobody learns who has one. */
#[AsEventListener]
final readonly class SameTimeForStrangers
{
    public function __construct(private PasswordHasherFactoryInterface $hashers)
    {
    }

    public function __invoke(LoginFailureEvent $event): void
    {
        for ($cause = $event->getException(); null !== $cause; $cause = $cause->getPrevious()) {
            if ($cause instanceof UserNotFoundException) {
                $this->hashers->getPasswordHasher(Account::class)->hash('a password of nobody');

                return;
            }
        }
    }
}
