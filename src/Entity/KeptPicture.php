<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;

/** A picture of the table that its owner wanted kept with a sheet: drawn anew, so that nothing written beside it is in it. */
#[ORM\Entity]
#[ORM\Table(name: 'kept_picture')]
class KeptPicture
{
    #[ORM\Id]
    #[ORM\OneToOne]
    #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
    private RackSheet $sheet;

    #[ORM\Column(type: Types::BLOB, length: 16_777_215)]
    private mixed $jpeg;

    #[ORM\Column]
    private \DateTimeImmutable $keptAt;

    public function __construct(RackSheet $sheet, string $jpeg, \DateTimeImmutable $at)
    {
        $this->sheet = $sheet;
        $this->keep($jpeg, $at);
    }

    public function getSheet(): RackSheet
    {
        return $this->sheet;
    }

    public function keep(string $jpeg, \DateTimeImmutable $at): void
    {
        $this->jpeg = $jpeg;
        $this->keptAt = $at;
    }

    public function getJpeg(): string
    {
        if (\is_string($this->jpeg)) {
            return $this->jpeg;
        }

        // The database gives a stream.
        return \is_resource($this->jpeg) ? (string) stream_get_contents($this->jpeg, offset: 0) : '';
    }

    public function getKeptAt(): \DateTimeImmutable
    {
        return $this->keptAt;
    }
}
