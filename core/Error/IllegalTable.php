<?php

declare(strict_types=1);

namespace ZigLane\Core\Error;

/** A table, ball set or cue whose constants lie outside what the model covers. */
final class IllegalTable extends \DomainException implements CoreError
{
    /**
     * @param list<string> $fields names of the fields at fault, in the words of the shot file
     */
    private function __construct(string $message, public readonly array $fields)
    {
        parent::__construct($message);
    }

    public static function outOfRange(string $field, float $found, float $least, float $most): self
    {
        return new self(\sprintf('%s is %s; it can be %s to %s.', $field, self::number($found), self::number($least), self::number($most)), [$field]);
    }

    private static function number(float $value): string
    {
        return rtrim(rtrim(\sprintf('%.6f', $value), '0'), '.');
    }
}
