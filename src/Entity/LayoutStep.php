<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\ORM\Mapping as ORM;
use ZigLane\App\Doctrine\RackType;
use ZigLane\Core\Rules\Rack;

/** One layout in the history of a sheet, for undo and redo. */
#[ORM\Entity]
#[ORM\Table(name: 'layout_step')]
#[ORM\UniqueConstraint(name: 'layout_step_of_sheet', columns: ['sheet_id', 'number'])]
class LayoutStep
{
    #[ORM\Id]
    #[ORM\GeneratedValue]
    #[ORM\Column(type: 'bigint')]
    private ?int $id = null;

    #[ORM\ManyToOne]
    #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
    private RackSheet $sheet;

    #[ORM\Column]
    private int $number;

    #[ORM\Column(type: RackType::NAME)]
    private Rack $rack;

    public function __construct(RackSheet $sheet, int $number, Rack $rack)
    {
        $this->sheet = $sheet;
        $this->number = $number;
        $this->rack = $rack;
    }

    public function getId(): ?int
    {
        return $this->id;
    }

    public function getSheet(): RackSheet
    {
        return $this->sheet;
    }

    public function getNumber(): int
    {
        return $this->number;
    }

    public function getRack(): Rack
    {
        return $this->rack;
    }
}
