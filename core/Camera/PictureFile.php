<?php

declare(strict_types=1);

namespace ZigLane\Core\Camera;

/**
 * Reads a picture that a stranger sent: its kind and its size are looked at before anything is decoded, and it is made no larger than the
 * finder needs. Nothing of what was written beside the picture (place, time, camera) is kept.
 */
final class PictureFile
{
    public const MAX_BYTES = 12_582_912;
    /** Pixels of the longer side that are decoded at the most, and that are looked at. */
    private const LONGEST = 8000;
    private const MOST_PIXELS = 24_000_000;
    private const USED = 1200;

    /** @throws UnreadablePicture If it is no JPEG or PNG, too large, or broken */
    public static function read(string $bytes): \GdImage
    {
        if (\strlen($bytes) > self::MAX_BYTES) {
            throw UnreadablePicture::because('tooLong', ['mib' => intdiv(self::MAX_BYTES, 1_048_576)]);
        }
        if (1 === preg_match('/^.{4}ftyp(heic|heix|hevc|mif1|msf1)/s', substr($bytes, 0, 12))) {
            throw UnreadablePicture::because('heic');
        }
        $size = @getimagesizefromstring($bytes);
        if (false === $size || !\in_array($size[2], [\IMAGETYPE_JPEG, \IMAGETYPE_PNG], true)) {
            throw UnreadablePicture::because('kind');
        }
        [$width, $height] = $size;
        if ($width < 200 || $height < 120) {
            throw UnreadablePicture::because('small', ['width' => $width, 'height' => $height]);
        }
        if (max($width, $height) > self::LONGEST || $width * $height > self::MOST_PIXELS) {
            throw UnreadablePicture::because('large', ['width' => $width, 'height' => $height]);
        }
        $image = @imagecreatefromstring($bytes);
        if (false === $image) {
            throw UnreadablePicture::because('broken');
        }
        $shrink = self::USED / max($width, $height);
        if ($shrink < 1.0) {
            $image = imagescale($image, (int) round($shrink * $width), (int) round($shrink * $height), \IMG_BICUBIC)
                ?: throw UnreadablePicture::because('broken');
        }

        return self::plain($image);
    }

    /** Colours as they are, without a palette. */
    private static function plain(\GdImage $image): \GdImage
    {
        if (!imageistruecolor($image)) {
            imagepalettetotruecolor($image);
        }

        return $image;
    }
}
