<?php

declare(strict_types=1);

namespace ZigLane\App\Doctrine;

use Doctrine\DBAL\Platforms\AbstractPlatform;
use Doctrine\DBAL\Types\Exception\InvalidType;
use Doctrine\DBAL\Types\Exception\ValueNotConvertible;
use Doctrine\DBAL\Types\JsonType;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Rules\Rack;

/** A rack in a column, kept as its rack file. */
final class RackType extends JsonType
{
    public const NAME = 'rack';

    public function convertToDatabaseValue(mixed $value, AbstractPlatform $platform): ?string
    {
        if (null !== $value && !$value instanceof Rack) {
            throw InvalidType::new($value, self::NAME, ['null', Rack::class]);
        }

        return null === $value ? null : (new RackFile($value))->write();
    }

    public function convertToPHPValue(mixed $value, AbstractPlatform $platform): ?Rack
    {
        if (!\is_string($value)) {
            return null;
        }
        try {
            return RackFile::parse($value)->rack;
        } catch (InvalidFile $e) {
            throw ValueNotConvertible::new($value, self::NAME, $e->getMessage(), $e);
        }
    }
}
