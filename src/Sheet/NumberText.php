<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Symfony\Component\HttpKernel\Exception\UnprocessableEntityHttpException;
use ZigLane\App\Words\Refused;

/** Numbers as a page types and shows them: plain decimals, with a point or a comma. */
final class NumberText
{
    /**
     * @param string      $what  that is read, as a sentence begins; $unit with a space before it, or empty
     * @param string|null $field of the form, by its name
     *
     * @throws UnprocessableEntityHttpException With a sentence that says what is allowed
     */
    public static function between(string $text, string $what, float $least, float $most, string $unit, ?string $field = null): float
    {
        $text = str_replace(',', '.', $text);
        if (1 !== preg_match('/^\d{0,3}(\.\d{0,6})?$/', $text) || !is_numeric($text) || (float) $text < $least || (float) $text > $most) {
            throw Refused::because(
                'number',
                ['what' => $what, 'least' => self::plain($least), 'most' => self::plain($most), 'unit' => $unit],
                $field,
            );
        }

        return (float) $text;
    }

    public static function plain(float $value): string
    {
        return rtrim(rtrim(number_format($value, 2, '.', ''), '0'), '.');
    }
}
