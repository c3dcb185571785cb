<?php

declare(strict_types=1);

namespace ZigLane\App\Doctrine;

use Doctrine\DBAL\Platforms\AbstractPlatform;
use Doctrine\DBAL\Types\Exception\InvalidType;
use Doctrine\DBAL\Types\Exception\ValueNotConvertible;
use Doctrine\DBAL\Types\JsonType;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Shot\ShotChoice;

/** Called shots in their order in a column, each kept as in a rack file. */
final class ShotChoicesType extends JsonType
{
    public const NAME = 'shot_choices';

    public function convertToDatabaseValue(mixed $value, AbstractPlatform $platform): string
    {
        if (!\is_array($value)) {
            throw InvalidType::new($value, self::NAME, ['array']);
        }

        return parent::convertToDatabaseValue(
            array_map(
                static fn (mixed $shot): array => $shot instanceof ShotChoice
                    ? RackFile::shotToArray($shot)
                    : throw InvalidType::new($shot, self::NAME, [ShotChoice::class]),
                array_values($value),
            ),
            $platform,
        );
    }

    /** @return list<ShotChoice> */
    public function convertToPHPValue(mixed $value, AbstractPlatform $platform): array
    {
        $list = parent::convertToPHPValue($value, $platform);
        $shots = [];
        foreach (\is_array($list) ? $list : [] as $shot) {
            try {
                $shots[] = RackFile::shotFromArray(\is_array($shot) ? $shot : []);
            } catch (InvalidFile $e) {
                throw ValueNotConvertible::new($value, self::NAME, $e->getMessage(), $e);
            }
        }

        return $shots;
    }
}
