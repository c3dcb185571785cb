<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use ZigLane\Core\Camera\Finder;
use ZigLane\Core\Camera\Scene;
use ZigLane\Core\Camera\View;
use ZigLane\Core\Error\UnreadablePicture;
use ZigLane\Core\Format\RackFile;

/** The simulated stand-in for a photograph: renders a rack as a camera above the long rail sees it, and says where its corners are. */
#[AsCommand('lane:camera', 'Renders a rack file as a photograph of its table and prints where the corner pockets are in it')]
final class CameraCommand extends FileCommand
{
    private const MAX_BYTES = 65536;
    private const SIZE = [960, 540];
    private const FOCAL = 0.64;

    protected function kind(): string
    {
        return 'rack';
    }

    protected function maxBytes(): int
    {
        return self::MAX_BYTES;
    }

    protected function numbers(): array
    {
        return [
            'seed' => [0, \PHP_INT_MAX, 1, 'How the balls lie turned, and the noise'],
            'height' => [150, 400, 240, 'How high the camera is above the cloth, centimetres'],
            'aside' => [0, 200, 80, 'How far it stands off the right long rail, centimetres'],
        ];
    }

    protected function configure(): void
    {
        parent::configure();
        $this->addOption('out', null, InputOption::VALUE_REQUIRED, 'Where the JPEG goes', 'table.jpg');
    }

    protected function answer(string $content, array $numbers, InputInterface $input): string
    {
        $rack = RackFile::parse($content, $this->maxBytes())->rack;
        [$width, $height] = self::SIZE;
        $table = $rack->equipment->table;
        $view = View::looking(
            [0.45 * $table->length, -$numbers['aside'] / 100, $numbers['height'] / 100],
            [0.5 * $table->length, 0.45 * $table->width(), 0.0],
            self::FOCAL * $width, $width, $height,
        );
        $image = (new Scene($rack->equipment, $rack->layout, $view))->image($numbers['seed'] & 0x7FFFFFFF);
        $out = $input->getOption('out');
        if (!\is_string($out) || !@imagejpeg($image, $out, 92)) {
            throw UnreadablePicture::because('notWritten');
        }
        $corners = [];
        foreach (Finder::CORNERS as $pocket) {
            $hole = $rack->equipment->geometry->at($pocket)->hole;
            [$x, $y] = $view->pixel($hole->x, $hole->y, 0.0);
            $corners[$pocket->value] = [round($x / $width, 4), round($y / $height, 4)];
        }

        return json_encode(['picture' => $out, 'corners' => $corners], \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT);
    }
}
