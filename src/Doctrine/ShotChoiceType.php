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

/** A called shot in a column, kept as in a rack file. */
final class ShotChoiceType extends JsonType
{
    public const NAME = 'shot_choice';

    public function convertToDatabaseValue(mixed $value, AbstractPlatform $platform): ?string
    {
        if (null !== $value && !$value instanceof ShotChoice) {
            throw InvalidType::new($value, self::NAME, ['null', ShotChoice::class]);
        }

        return null === $value ? null : parent::convertToDatabaseValue(RackFile::shotToArray($value), $platform);
    }

    public function convertToPHPValue(mixed $value, AbstractPlatform $platform): ?ShotChoice
    {
        $array = parent::convertToPHPValue($value, $platform);
        if (!\is_array($array)) {
            return null;
        }
        try {
            return RackFile::shotFromArray($array);
        } catch (InvalidFile $e) {
            throw ValueNotConvertible::new($value, self::NAME, $e->getMessage(), $e);
        }
    }
}
