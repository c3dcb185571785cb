<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Camera\DemoTable;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Log\LogEditor;
use ZigLane\App\Tables\TableShelf;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Table\Equipment;
use ZigLane\Tests\SimulatedPictures;

/** From a rendered photograph to a layout. */
final class PictureTest extends AppTestCase
{
    public function testAPictureBecomesALayout(): void
    {
        $account = $this->signedIn();
        $sheet = $this->sheet($account);
        [$layout, $view, $image, $taps] = (new SimulatedPictures(3))->picture(0);
        $corners = array_map(static fn (array $tap): array => [$tap[0] / $view->width, $tap[1] / $view->height], $taps);
        $this->send($sheet, $image, $corners);
        self::assertResponseIsSuccessful();
        self::assertSelectorExists('.seen-list li');
        // The picture itself is thrown away, unless it is wanted.
        $this->client->request('GET', "/sheets/{$sheet->getId()}/picture/kept");
        self::assertResponseStatusCodeSame(404);
        $this->send($sheet, $image, $corners, ['keep' => '1']);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/picture/kept");
        self::assertResponseHeaderSame('Content-Type', 'image/jpeg');
        self::assertStringStartsWith("\xFF\xD8", (string) $this->client->getResponse()->getContent());
        $this->client->request('GET', "/sheets/{$sheet->getId()}/picture");
        $this->client->submitForm('Throw it away');
        $this->client->request('GET', "/sheets/{$sheet->getId()}/picture/kept");
        self::assertResponseStatusCodeSame(404);
        $this->send($sheet, $image, $corners);
        // Nothing is laid out before the person says so.
        self::assertSame($sheet->getVersion(), $this->reloaded($sheet)->getVersion());
        $this->client->submitForm('Lay these out');
        $laid = $this->reloaded($sheet)->getRack()->layout;
        $right = array_filter(
            $laid->balls(),
            static fn (Ball $ball): bool => $layout->has($ball) && $laid->spot($ball)->distanceTo($layout->spot($ball)) < 0.02,
        );
        self::assertGreaterThan(1, \count($right));
        self::assertGreaterThanOrEqual($laid->count() - 1, \count($right));
        self::assertTrue($laid->has(Ball::Cue));
    }

    public function testAPictureOfSomethingElseIsSaidAndNothingIsLost(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $image = imagecreatetruecolor(640, 360);
        imagefill($image, 0, 0, 0x557733);
        $this->send($sheet, $image, [[0.1, 0.9], [0.92, 0.85], [0.8, 0.2], [0.22, 0.24]]);
        self::assertResponseStatusCodeSame(422);
        $said = $this->client->getCrawler()->filter('[role=alert]')->text();
        self::assertMatchesRegularExpression('/No balls were found|cannot be the corners/', $said);
        $this->send($sheet, $image, [[0.1, 0.9], [0.9, 0.9], [0.8, 0.2]]);
        self::assertSelectorTextContains('[role=alert]', '3 corners were tapped');
        $this->send($sheet, $image, [['x', []], 'y']);
        self::assertSelectorTextContains('[role=alert]', 'No corner was tapped');
        $this->send($sheet, null, []);
        self::assertSelectorTextContains('[role=alert]', 'JPEG or PNG');
        self::assertSame($sheet->getVersion(), $this->reloaded($sheet)->getVersion());
    }

    /** The room's camera, by the stand-in: a frame becomes a layout, and what moved since is seen in the next. */
    public function testTheTablesCameraGivesTheLayout(): void
    {
        $port = self::freePort();
        $file = (string) tempnam(sys_get_temp_dir(), 'rack');
        $write = static fn (string $at): int|false => file_put_contents($file, json_encode([
            'format' => 'zig-lane/rack', 'version' => 1, 'game' => 'nine-ball',
            'layoutDiamonds' => ['cue' => [2, 1.5], '4' => [5, 1], '9' => array_map(floatval(...), explode(',', $at))],
        ]));
        $write('6,3');
        $camera = self::started([\PHP_BINARY, 'bin/console', 'lane:camera', $file, "--serve=$port"], $port);
        try {
            $_ENV['LANE_CAMERA_URL'] = $_SERVER['LANE_CAMERA_URL'] = "http://127.0.0.1:$port/";
            $sheet = $this->sheetUnderCamera();
            foreach (['6,3', '3,2.5'] as $at) {
                $write($at);
                $this->client->request('GET', "/sheets/{$sheet->getId()}/picture");
                $this->client->submitForm("From the table's camera");
                self::assertResponseIsSuccessful();
                $this->client->submitForm('Lay these out');
                $rack = $this->reloaded($sheet)->getRack();
                [$long, $short] = $rack->layout->spot(Ball::Nine)->inDiamonds($rack->equipment->table);
                [$trueLong, $trueShort] = array_map(floatval(...), explode(',', $at));
                self::assertEqualsWithDelta($trueLong, $long, 0.04);
                self::assertEqualsWithDelta($trueShort, $short, 0.04);
                self::assertSame(3, $rack->layout->count());
            }
        } finally {
            proc_terminate($camera, 9);
        }
        // Now it is away: a sentence, and the layout stays.
        $version = $this->reloaded($sheet)->getVersion();
        $this->client->request('GET', "/sheets/{$sheet->getId()}/picture");
        $this->client->submitForm("From the table's camera");
        self::assertResponseStatusCodeSame(422);
        self::assertSelectorTextContains('[role=alert]', 'does not answer');
        self::assertSame($version, $this->reloaded($sheet)->getVersion());
    }

    /** At the table: where the balls came to rest is filled in, what hardly moved lies as it lay, and nothing is logged by it. */
    public function testAtTheTableTheCameraSaysWhereTheBallsCameToRest(): void
    {
        $port = self::freePort();
        $file = (string) tempnam(sys_get_temp_dir(), 'rack');
        file_put_contents($file, json_encode([
            'format' => 'zig-lane/rack', 'version' => 1, 'game' => 'nine-ball', 'layoutDiamonds' => ['cue' => [4.2, 2.4], '9' => [1.26, 3.15]],
        ]));
        $camera = self::started([\PHP_BINARY, 'bin/console', 'lane:camera', $file, "--serve=$port"], $port);
        try {
            $_ENV['LANE_CAMERA_URL'] = $_SERVER['LANE_CAMERA_URL'] = "http://127.0.0.1:$port/";
            $sheet = $this->sheetUnderCamera();
            $this->client->request('GET', "/sheets/{$sheet->getId()}/run");
            $this->client->request('POST', "/sheets/{$sheet->getId()}/shoot", ['_token' => $this->token($sheet)]);
            $board = $this->client->followRedirect()->filter('[data-shoot]');
            $before = self::balls($board->filter('[data-state]')->text());
            self::assertSame(['cue', '4', '9'], array_map(strval(...), array_keys($before)));
            $this->client->request('POST', (string) $board->attr('data-camera'), ['_token' => $board->attr('data-token')]);
            self::assertResponseIsSuccessful();
            $seen = self::balls((string) $this->client->getResponse()->getContent());
            // The 4 was made: it is not seen. The 9 is where it was, to the last digit.
            self::assertEqualsCanonicalizing(['cue', '9'], array_map(strval(...), array_keys($seen)));
            self::assertSame($before['9'], $seen['9']);
            self::assertEqualsWithDelta(4.2, $seen['cue'][0], 0.04);
            self::assertEqualsWithDelta(2.4, $seen['cue'][1], 0.04);
        } finally {
            proc_terminate($camera, 9);
        }
        $this->client->request('POST', (string) $board->attr('data-camera'), ['_token' => $board->attr('data-token')]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('does not answer', (string) $this->client->getResponse()->getContent());
        $this->client->request('POST', (string) $board->attr('data-camera'));
        self::assertResponseStatusCodeSame(403);
    }

    /** A camera hangs over one table. A rack anywhere else never asks it, and nobody can ask it for such a rack. */
    public function testRacksOnOtherTablesNeverAskTheCamera(): void
    {
        $_ENV['LANE_CAMERA_URL'] = $_SERVER['LANE_CAMERA_URL'] = 'http://127.0.0.1:1/';
        $sheet = $this->sheet($this->signedIn());
        $this->client->request('GET', "/sheets/{$sheet->getId()}/picture");
        self::assertSelectorNotExists('form[action$="/camera"]');
        $this->client->request('POST', "/sheets/{$sheet->getId()}/shoot", ['_token' => $this->token($sheet)]);
        $board = $this->client->followRedirect()->filter('[data-shoot]');
        self::assertNull($board->attr('data-camera'));
        $rack = basename(\dirname((string) $board->attr('data-board')));
        foreach (["/racks/$rack/seen", "/sheets/{$sheet->getId()}/camera"] as $address) {
            $this->client->request('POST', $address, ['_token' => $board->attr('data-token')]);
            self::assertContains($this->client->getResponse()->getStatusCode(), [403, 404], $address);
        }
    }

    private function sheetUnderCamera(): RackSheet
    {
        $sheet = $this->sheet($this->signedIn());
        $table = self::getContainer()->get(TableShelf::class)->keep($sheet->getOwner(), new TableFile('Under the camera', new Equipment()));
        $table->hangCamera(true);
        $sheet->onTable($table);
        $this->manager()->flush();

        return $sheet;
    }

    /** The stand-in of the demo shows what comes of the shot that the demo player is about to play. */
    public function testTheDemosTableIsWhatHePlaysOn(): void
    {
        $player = $this->manager()->getRepository(Account::class)->findOneBy(['email' => Account::DEMO_EMAIL]);
        self::assertNotNull($player);
        $table = self::getContainer()->get(DemoTable::class);
        $sheet = $this->sheet($player);
        $shown = $table->rack();
        self::assertEquals($sheet->getRack()->layout, $shown?->layout);
        $text = (string) file_get_contents(\dirname(__DIR__).'/Core/Decide/seven-behind-the-six.plan.json');
        $rack = PlanFile::parse($text)->plans[0]->rack;
        $player = $this->reloaded($sheet)->getOwner();
        $editor = self::getContainer()->get(LogEditor::class);
        $shooting = $editor->begin($player, Uuid::v7(), $rack, RackKind::Practice, null, $text);
        $this->manager()->flush();
        $after = $table->rack();
        self::assertNotNull($after);
        // Somebody has shot: the cue ball lies elsewhere, and every frame shows the same.
        self::assertTrue(
            !$after->layout->has(Ball::Cue) || $after->layout->spot(Ball::Cue)->distanceTo($rack->layout->spot(Ball::Cue)) > 0.05,
        );
        self::assertEquals($after->layout, $table->rack()?->layout);
        self::assertLessThanOrEqual($rack->layout->count(), $after->layout->count());
        $shooting = $this->manager()->find(ShotRack::class, $shooting->getId());
        self::assertNotNull($shooting);
        $editor->delete($shooting);
        self::assertEquals($sheet->getRack()->layout, $table->rack()?->layout);
    }

    #[DataProvider('liars')]
    public function testACameraThatLiesIsNotBelieved(string $router, string $why): void
    {
        $port = self::freePort();
        $path = (string) tempnam(sys_get_temp_dir(), 'router');
        file_put_contents($path, "<?php $router");
        $camera = self::started([\PHP_BINARY, '-S', "127.0.0.1:$port", $path], $port);
        try {
            $_ENV['LANE_CAMERA_URL'] = $_SERVER['LANE_CAMERA_URL'] = "http://127.0.0.1:$port/";
            $sheet = $this->sheetUnderCamera();
            $this->client->request('GET', "/sheets/{$sheet->getId()}/picture");
            $this->client->submitForm("From the table's camera");
            self::assertResponseStatusCodeSame(422);
            self::assertSelectorTextContains('[role=alert]', $why);
        } finally {
            proc_terminate($camera, 9);
        }
    }

    /** @return iterable<string, array{string, string}> */
    public static function liars(): iterable
    {
        $now = "header('Last-Modified: '.gmdate('D, d M Y H:i:s').' GMT');";
        yield 'a frame of last week' => ["header('Last-Modified: '.gmdate('D, d M Y H:i:s', time() - 604800).' GMT'); echo 'x';", 'old picture'];
        yield 'no picture' => ["$now echo 'hello';", 'no JPEG or PNG'];
        yield 'an error' => ['http_response_code(500);', 'does not answer'];
        yield 'no corners' => [
            "$now \$i = imagecreatetruecolor(400, 300); header('Content-Type: image/png'); imagepng(\$i);", 'where the corner pockets are',
        ];
    }

    /** @return array<array{float, float}> diamonds, by ball */
    private static function balls(string $json): array
    {
        $said = json_decode($json, true);
        self::assertIsArray($said);
        self::assertIsArray($said['balls']);

        /** @var array<array{float, float}> $balls */
        $balls = $said['balls'];

        return $balls;
    }

    private static function freePort(): int
    {
        $server = stream_socket_server('tcp://127.0.0.1:0');
        self::assertNotFalse($server);
        $name = (string) stream_socket_get_name($server, false);
        fclose($server);

        return (int) substr($name, (int) strrpos($name, ':') + 1);
    }

    /**
     * @param list<string> $command
     *
     * @return resource a process that answers on a port
     */
    private static function started(array $command, int $port)
    {
        $pipes = [];
        $nothing = [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']];
        $process = proc_open($command, $nothing, $pipes, \dirname(__DIR__, 2));
        self::assertIsResource($process);
        $end = microtime(true) + 20;
        while (false === ($socket = @stream_socket_client("tcp://127.0.0.1:$port", timeout: 1)) && microtime(true) < $end) {
            usleep(50_000);
        }
        self::assertNotFalse($socket, 'it does not answer');
        fclose($socket);

        return $process;
    }

    protected function tearDown(): void
    {
        unset($_ENV['LANE_CAMERA_URL'], $_SERVER['LANE_CAMERA_URL']);
        parent::tearDown();
    }

    /**
     * @param array<mixed>          $corners shares of width and height
     * @param array<string, string> $more
     */
    private function send(RackSheet $sheet, ?\GdImage $image, array $corners, array $more = []): void
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'picture');
        null === $image ? file_put_contents($path, 'text') : imagejpeg($image, $path, 92);
        $this->client->request('POST', "/sheets/{$sheet->getId()}/picture", [
            '_token' => $this->token($sheet), 'corners' => json_encode($corners), ...$more,
        ], ['picture' => new UploadedFile($path, 'x.jpg', 'image/jpeg', null, true)]);
    }
}
