<?php

declare(strict_types=1);

namespace ZigLane\Core\Table;

/** Tables of the kinds that players meet, to begin from: common practice, no source; each is taught by its own tests. */
enum TypicalTable: string
{
    case Usual = 'usual';
    case Tight = 'tight';
    case Worn = 'worn';
    case Quick = 'quick';
    case Small = 'small';

    /** Friction of balls that have not been cleaned for a while, as a share of clean ones. */
    private const DIRTY = 1.6;

    public function equipment(): Equipment
    {
        return match ($this) {
            self::Usual => new Equipment(),
            self::Tight => new Equipment(TableProfile::fromArray(['cornerMouth' => 0.1016])),
            self::Worn => new Equipment(
                TableProfile::fromArray([
                    'cornerMouth' => 0.127, 'roll' => 0.014, 'slide' => 0.24, 'cushionRestitution' => 0.84, 'cushionFriction' => 0.45,
                ]),
                (new BallSet())->dirtier(self::DIRTY),
            ),
            self::Quick => new Equipment(TableProfile::fromArray(['roll' => 0.008, 'slide' => 0.16, 'cushionRestitution' => 0.93])),
            self::Small => new Equipment(TableProfile::fromArray(['length' => TableSize::Seven->length(), 'cornerMouth' => 0.12065])),
        };
    }
}
