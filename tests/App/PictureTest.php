<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Symfony\Component\HttpFoundation\File\UploadedFile;
use ZigLane\App\Entity\RackSheet;
use ZigLane\Core\Position\Ball;
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

    /** @param array<mixed> $corners shares of width and height */
    private function send(RackSheet $sheet, ?\GdImage $image, array $corners): void
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'picture');
        null === $image ? file_put_contents($path, 'text') : imagejpeg($image, $path, 92);
        $this->client->request('POST', "/sheets/{$sheet->getId()}/picture", [
            '_token' => $this->token($sheet), 'corners' => json_encode($corners),
        ], ['picture' => new UploadedFile($path, 'x.jpg', 'image/jpeg', null, true)]);
    }
}
