<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use ZigLane\Core\Format\DrillFile;

/** A drill as it was when it was played: never changed. */
#[ORM\Entity]
#[ORM\Table(name: 'drill_version')]
class DrillVersion
{
    #[ORM\Id]
    #[ORM\Column(length: 64, options: ['fixed' => true])]
    private string $hash;

    #[ORM\Column(type: Types::TEXT, length: 16777215)]
    private string $file;

    private ?DrillFile $parsed = null;

    public function __construct(DrillFile $file)
    {
        $this->hash = $file->hash();
        $this->file = $file->write();
    }

    public function getHash(): string
    {
        return $this->hash;
    }

    public function getFile(): DrillFile
    {
        return $this->parsed ??= DrillFile::parse($this->file);
    }
}
