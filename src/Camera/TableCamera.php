<?php

declare(strict_types=1);

namespace ZigLane\App\Camera;

use Psr\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use ZigLane\App\Entity\OwnTable;
use ZigLane\Core\Camera\Finder;
use ZigLane\Core\Camera\PictureFile;
use ZigLane\Core\Camera\UnreadablePicture;

/**
 * A camera over a table that serves its frame over HTTP. Whoever looks after the room sets its address; each question says which table is
 * meant, a profile whose player says that the camera hangs there. Racks on other tables never ask. Besides the picture it says where the
 * corner pockets are (X-Lane-Corners, JSON, shares of width and height by pocket) and when it was taken (Last-Modified).
 */
final readonly class TableCamera
{
    /** How old a frame may be, seconds. */
    private const OLD = 15;

    public function __construct(
        #[Autowire('%env(LANE_CAMERA_URL)%')]
        private string $address,
        #[Autowire('%env(float:LANE_CAMERA_SECONDS)%')]
        private float $wait,
        private ClockInterface $clock,
    ) {
    }

    /** Whether the room has one at all. */
    public function isThere(): bool
    {
        return '' !== $this->address;
    }

    public function hangsOver(?OwnTable $table): bool
    {
        return $this->isThere() && true === $table?->hasCamera();
    }

    /**
     * The present frame.
     *
     * @return array{\GdImage, list<array{float, float}>} the picture and its corners in pixels, in the order of Finder::CORNERS
     *
     * @throws UnreadablePicture If it does not answer, or with something else, or with an old frame
     */
    public function frame(OwnTable $table): array
    {
        if (1 !== preg_match('#^https?://#', $this->address)) {
            throw UnreadablePicture::because('cameraAway');
        }
        $context = stream_context_create(['http' => [
            'timeout' => $this->wait, 'follow_location' => 0, 'ignore_errors' => true, 'header' => "Accept: image/jpeg, image/png\r\n",
        ]]);
        $address = $this->address.(str_contains($this->address, '?') ? '&' : '?').'table='.$table->getId();
        $stream = @fopen($address, 'r', false, $context);
        if (false === $stream) {
            throw UnreadablePicture::because('cameraAway');
        }
        stream_set_timeout($stream, (int) $this->wait);
        $bytes = (string) stream_get_contents($stream, PictureFile::MAX_BYTES + 1);
        $headers = $this->headers(stream_get_meta_data($stream)['wrapper_data'] ?? []);
        fclose($stream);
        if (1 !== preg_match('#^HTTP/\S+ 200#', $headers['status'] ?? '')) {
            throw UnreadablePicture::because('cameraAway');
        }
        $taken = strtotime($headers['last-modified'] ?? '');
        if (false === $taken || abs($this->clock->now()->getTimestamp() - $taken) > self::OLD) {
            throw UnreadablePicture::because('cameraOld');
        }
        $image = PictureFile::read($bytes);

        return [$image, $this->corners($headers['x-lane-corners'] ?? '', $image)];
    }

    /** @return list<array{float, float}> */
    private function corners(string $json, \GdImage $image): array
    {
        $told = json_decode($json, true, 4);
        $corners = [];
        foreach (Finder::CORNERS as $pocket) {
            $at = \is_array($told) ? $told[$pocket->value] ?? null : null;
            if (!\is_array($at) || !is_numeric($at[0] ?? null) || !is_numeric($at[1] ?? null)) {
                throw UnreadablePicture::because('cameraCorners');
            }
            $corners[] = [(float) $at[0] * imagesx($image), (float) $at[1] * imagesy($image)];
        }

        return $corners;
    }

    /** @return array<string, string> in small letters, and "status" */
    private function headers(mixed $lines): array
    {
        $headers = [];
        foreach (\is_array($lines) ? $lines : [] as $line) {
            if (!\is_string($line)) {
                continue;
            }
            if (str_starts_with($line, 'HTTP/')) {
                $headers = ['status' => $line];
                continue;
            }
            [$name, $value] = [...explode(':', $line, 2), ''];
            $headers[strtolower(trim($name))] = trim($value);
        }

        return $headers;
    }
}
