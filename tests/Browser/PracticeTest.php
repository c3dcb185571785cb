<?php

declare(strict_types=1);

namespace ZigLane\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;

/** Drills on a phone, on paper and changed in the browser. */
final class PracticeTest extends BrowserTestCase
{
    private const DRILL = [
        'format' => 'zig-lane/drill', 'version' => 1, 'name' => 'Stop in the ring', 'skill' => 'position', 'task' => 'pot', 'ball' => '1',
        'pocket' => 'FL', 'places' => ['cue' => [4, 2], '1' => [6, 3]], 'done' => 0, 'tries' => 4, 'pass' => 3,
        'targets' => [['kind' => 'area', 'ball' => 'cue', 'points' => 1, 'area' => ['rings' => ['at' => [5.9, 2.95], 'of' => [[0.5, 1]]]]]],
    ];

    public function testAScoredDrillIsPlayedOnAPhoneWithoutNetworkInTheMiddle(): void
    {
        $this->begin();
        $this->window(390, 844);
        $this->click('[name="mode"][value="scored"]');
        $this->see('[data-practice]');
        // By a tap where the cue ball stopped: in the ring.
        $this->click('[data-result="done"]');
        $this->see('[data-stage="spot"]');
        $ring = $this->pointOf('circle.drill-target', 0.5, 0.5);
        $this->drag([$ring], 'touch');
        $this->until(fn (): bool => str_contains($this->text('[data-score]'), 'try 2 of 4'), 'the tap is not counted');
        self::assertSame('1', $this->text('.big-score'));
        $this->network(true);
        $this->click('[data-result="missed"]');
        $this->until(fn (): bool => str_contains($this->text('#network'), '1 try waits'), 'it does not say that it waits');
        $this->click('[data-result="done"]');
        $this->see('[data-stage="spot"]');
        $this->type('#typed', '5.9, 2.95');
        $this->click('.typed-spot .button');
        $this->until(fn (): bool => str_contains($this->text('#network'), '2 tries wait'), 'it does not say that two wait');
        $this->network(false);
        $this->until(fn (): bool => str_contains($this->text('[data-score]'), 'try 4 of 4'), 'the entries are not counted once each');
        self::assertSame('2', $this->text('.big-score'));
        // Taken back and entered again; then the last.
        $this->click('[data-undo-try]');
        $this->until(fn (): bool => str_contains($this->text('[data-score]'), 'try 3 of 4'), 'it is not taken back');
        foreach ([4, 0] as $next) {
            $this->click('[data-result="done"]');
            $this->see('[data-stage="spot"]');
            $this->type('#typed', '5.9, 2.95');
            $this->click('.typed-spot .button');
            $this->until(fn (): bool => 0 === $next
                ? 'over' === $this->attribute('[data-practice]', 'data-stage')
                : str_contains($this->text('[data-score]'), "try $next of 4"), 'it is not counted');
        }
        self::assertStringContainsString('Passed', $this->text('[data-on="over"]'));
        self::assertSame('3', $this->text('.big-score'));
        $this->open('/progress');
        self::assertStringContainsString('Stop in the ring', $this->text('main'));
    }

    public function testACardIsPrintedFourOnAPage(): void
    {
        $this->begin();
        $this->click('a[href*="/card"]');
        $this->see('[data-qr] svg');
        $answer = $this->cdp('Page.printToPDF', ['printBackground' => true, 'paperWidth' => 8.27, 'paperHeight' => 11.69]);
        self::assertIsArray($answer);
        $path = (string) tempnam(sys_get_temp_dir(), 'card').'.pdf';
        file_put_contents($path, (string) base64_decode(\is_string($answer['data'] ?? null) ? $answer['data'] : '', true));
        $text = (string) shell_exec('pdftotext -layout '.escapeshellarg($path).' -');
        self::assertSame(4, substr_count($text, 'Stop in the ring'), $text);
        foreach (['the cue ball 4, 2', 'Pot the 1 in FL', 'Sum', '127.0 cm'] as $word) {
            self::assertStringContainsString($word, $text);
        }
        // All on one page: form feeds part pages.
        self::assertSame(1, substr_count($text, "\f"));
    }

    public function testADrawingIsSavedAsAPicture(): void
    {
        $this->begin();
        // What would be saved is looked at instead.
        $this->browser->executeScript(
            'HTMLAnchorElement.prototype.click = function () { window.saved = this.href; window.savedAs = this.download; };',
        );
        foreach (['svg', 'png'] as $kind) {
            $this->click("[data-save-picture=\"$kind\"]");
            $this->until(fn (): bool => true === $this->browser->executeScript(
                'return Boolean(document.querySelector(arguments[0]))',
                ["[data-save-picture=\"$kind\"][data-saved]"],
            ), "no $kind is saved");
            self::assertSame("drill.$kind", $this->browser->executeScript('return window.savedAs'));
        }
        $size = $this->browser->executeAsyncScript(
            'const done = arguments[arguments.length - 1]; const image = new Image(); image.onload = () => done(image.naturalWidth);'
            .' image.src = window.saved;',
        );
        self::assertSame(1600, $size);
    }

    public function testADrillIsChangedInTheBrowserAndItsParWithIt(): void
    {
        $this->begin();
        $this->click('.pars form .button');
        $par = function (): string {
            $row = $this->browser->findElements(WebDriverBy::cssSelector('.par-table tbody tr'))[0] ?? null;

            return null === $row ? '' : $row->getText();
        };
        $this->until(fn (): bool => 4 === \count($this->browser->findElements(WebDriverBy::cssSelector('.par-table td b')))
            && !str_contains($this->text('.pars'), 'played'), 'the pars are not there');
        $before = $par();
        $this->click('a[href$="/edit"]');
        $this->see('[data-drill-editor]');
        // The cue ball is dragged nearer to the ball: the file follows.
        $from = $this->pointOf('[data-ball-of="cue"]', 0.5, 0.5);
        $to = $this->pointOf('[data-ball-of="1"]', 0.5, 0.5);
        $near = [$to[0] - (int) (0.25 * ($to[0] - $from[0])), $to[1] - (int) (0.25 * ($to[1] - $from[1]))];
        $this->drag([$from, [$from[0] + 10, $from[1] - 5], $near]);
        $this->until(fn (): bool => true === $this->browser->executeScript(
            'return /"cue": \[\s*5\.5,\s*2\.75\s*\]/.test(document.querySelector("[data-drill-text]").value)',
        ), 'the file does not follow');
        // Tried before it is kept: a few runs, and the stroke that was found.
        $this->click('[hx-post$="/try"]');
        $this->see('#tried .own-tries');
        self::assertStringContainsString('20 runs of a simulated club player', $this->text('#tried'));
        // A target by its corners: the first is pressed again to close it.
        $this->click('[data-draw="polygon"]');
        foreach ([[0.3, 0.3], [0.5, 0.3], [0.5, 0.6], [0.3, 0.3]] as [$across, $down]) {
            $this->drag([$this->pointOf('[data-table]', $across, $down)]);
        }
        $this->until(fn (): bool => true === $this->browser->executeScript(
            'return JSON.parse(document.querySelector("[data-drill-text]").value).targets[1]?.area.polygon.length === 3',
        ), 'the corners are not in the file');
        $this->click('.drill-form > .button.is-primary');
        $this->see('.pars form .button');
        $this->click('.pars form .button');
        $this->until(fn (): bool => 4 === \count($this->browser->findElements(WebDriverBy::cssSelector('.par-table td b')))
            && !str_contains($this->text('.pars'), 'played'), 'the new pars are not there');
        self::assertNotSame($before, $par());
    }

    private function begin(): void
    {
        $this->register();
        $this->open('/drills');
        $path = (string) tempnam(sys_get_temp_dir(), 'drill').'.json';
        // A drill that nobody has: a par is kept for everybody.
        file_put_contents($path, json_encode(['text' => bin2hex(random_bytes(6))] + self::DRILL, \JSON_THROW_ON_ERROR));
        $this->see('[name="file"]')->sendKeys($path);
        $this->click('form[enctype] .button');
        $this->see('.drill-desk');
    }
}
