<?php

declare(strict_types=1);

namespace ZigLane\App\Form;

use Symfony\Component\Validator\Constraints as Assert;
use ZigLane\App\Entity\OwnTable;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Table\TableSize;

/** What a new rack sheet starts from. */
final class NewSheet
{
    #[Assert\NotBlank(message: 'Give the sheet a name, so that you find it again.')]
    #[Assert\Length(max: RackFile::MAX_NAME, maxMessage: 'A name has at most {{ limit }} characters.')]
    public string $name = '';

    #[Assert\NotNull(message: 'Choose a game.')]
    public ?Game $game = Game::NineBall;

    #[Assert\NotNull(message: 'Choose a table.')]
    public ?TableSize $size = TableSize::Nine;

    /** A table of the player's own; null: a usual one of that size. */
    public ?OwnTable $table = null;

    #[Assert\Uuid(message: 'This form is damaged. Reload the page.')]
    #[Assert\NotBlank(message: 'This form is damaged. Reload the page.')]
    public string $submission = '';
}
