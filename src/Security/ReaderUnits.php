<?php

declare(strict_types=1);

namespace ZigLane\App\Security;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\DependencyInjection\Attribute\AsAlias;
use ZigLane\App\Entity\Account;
use ZigLane\App\Words\Units;
use ZigLane\App\Words\UsualUnits;

/** The units of whoever is signed in. */
#[AsAlias(Units::class)]
final readonly class ReaderUnits implements Units
{
    public function __construct(private Security $security)
    {
    }

    public function length(float $metres, int $decimals = 0): string
    {
        return $this->units()->length($metres, $decimals);
    }

    public function speed(float $mps): string
    {
        return $this->units()->speed($mps);
    }

    private function units(): UsualUnits
    {
        $user = $this->security->getUser();

        return $user instanceof Account ? new UsualUnits($user->getLengthUnit(), $user->getSpeedUnit()) : new UsualUnits();
    }
}
