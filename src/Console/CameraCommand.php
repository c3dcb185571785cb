<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Doctrine\DBAL\Exception as DbalException;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use ZigLane\App\Camera\DemoTable;
use ZigLane\App\Words\Words;
use ZigLane\Core\Camera\Finder;
use ZigLane\Core\Camera\Scene;
use ZigLane\Core\Camera\UnreadablePicture;
use ZigLane\Core\Camera\View;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Rules\Rack;

/**
 * The simulated stand-in for a photograph and for a table camera: renders a rack as it is seen from above the long rail, once or for
 * every request.
 */
#[AsCommand('lane:camera', 'Renders a rack file as a photograph of its table and prints where the corner pockets are in it')]
final class CameraCommand extends FileCommand
{
    private const MAX_BYTES = 65536;
    private const SIZE = [960, 540];
    private const FOCAL = 0.64;

    public function __construct(Words $words, private readonly DemoTable $demo)
    {
        parent::__construct($words);
    }

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
        $this->addOption('serve', null, InputOption::VALUE_REQUIRED, 'Serve frames of the file as it is then on this port of loopback instead');
        $this->addOption('demo', null, InputOption::VALUE_NONE, 'Of what the demo player has before him instead of a file (-)');
    }

    protected function answer(string $content, array $numbers, InputInterface $input): string
    {
        $port = filter_var($input->getOption('serve'), \FILTER_VALIDATE_INT, ['options' => ['min_range' => 1, 'max_range' => 65535]]);
        if (\is_int($port)) {
            $path = $input->getArgument('file');
            $this->serve($port, match (true) {
                true === $input->getOption('demo') => fn (string $table): Rack => $this->demo->rack($table) ?? throw UnreadablePicture::because('noBalls'),
                \is_string($path) && '-' !== $path => fn (): Rack => $this->read(
                    (string) @file_get_contents($path, length: self::MAX_BYTES + 1),
                ),
                default => fn (): Rack => $this->read($content),
            }, $numbers);

            return '';
        }
        [$jpeg, $corners] = $this->frame($this->read($content), $numbers);
        $out = $input->getOption('out');
        if (!\is_string($out) || false === @file_put_contents($out, $jpeg)) {
            throw UnreadablePicture::because('notWritten');
        }

        return json_encode(['picture' => $out, 'corners' => $corners], \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT);
    }

    /**
     * Answers every request with a frame of the rack as it is then; one that cannot be read is answered as a camera that fails.
     *
     * @param \Closure(string): Rack $rack    by the table that is asked for
     * @param array<string, int>     $numbers
     */
    private function serve(int $port, \Closure $rack, array $numbers): void
    {
        $server = @stream_socket_server("tcp://127.0.0.1:$port");
        if (false === $server) {
            throw UnreadablePicture::because('portTaken', ['port' => $port]);
        }
        while (\is_resource($server)) {
            $client = @stream_socket_accept($server, -1);
            if (false === $client) {
                continue;
            }
            stream_set_timeout($client, 2);
            $asked = 1 === preg_match('/[?&]table=([0-9a-f-]{36})/', (string) fgets($client, 4096), $found) ? $found[1] : '';
            try {
                [$jpeg, $corners] = $this->frame($rack($asked), $numbers);
                $head = [
                    'HTTP/1.0 200 OK', 'Content-Type: image/jpeg', 'Content-Length: '.\strlen($jpeg),
                    'Last-Modified: '.gmdate('D, d M Y H:i:s').' GMT',
                    'X-Lane-Corners: '.json_encode($corners, \JSON_THROW_ON_ERROR), 'Connection: close',
                ];
            } catch (CoreError|DbalException) {
                $jpeg = '';
                $head = ['HTTP/1.0 503 Service Unavailable', 'Content-Length: 0', 'Connection: close'];
            }
            @fwrite($client, implode("\r\n", $head)."\r\n\r\n".$jpeg);
            fclose($client);
        }
    }

    private function read(string $content): Rack
    {
        return RackFile::parse($content, $this->maxBytes())->rack;
    }

    /**
     * @param array<string, int> $numbers
     *
     * @return array{string, array<string, array{float, float}>} JPEG, and the corners as shares of width and height
     */
    private function frame(Rack $rack, array $numbers): array
    {
        [$width, $height] = self::SIZE;
        $table = $rack->equipment->table;
        $view = View::looking(
            [0.45 * $table->length, -$numbers['aside'] / 100, $numbers['height'] / 100],
            [0.5 * $table->length, 0.45 * $table->width(), 0.0],
            self::FOCAL * $width, $width, $height,
        );
        $image = (new Scene($rack->equipment, $rack->layout, $view))->image($numbers['seed'] & 0x7FFFFFFF);
        ob_start();
        imagejpeg($image, null, 92);
        $jpeg = (string) ob_get_clean();
        $corners = array_map(
            static fn (array $at): array => [round($at[0] / $width, 4), round($at[1] / $height, 4)],
            Finder::cornersIn($view, $rack->equipment),
        );

        return [$jpeg, $corners];
    }
}
