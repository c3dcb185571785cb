<?php

declare(strict_types=1);

namespace ZigLane\Tests\Browser;

use Facebook\WebDriver\Remote\LocalFileDetector;
use Facebook\WebDriver\WebDriverBy;
use ZigLane\Core\Format\RackFile;

/** A table found from a few shots on a phone, and what a sheet makes of it; a break onto a sheet. */
final class TablesTest extends BrowserTestCase
{
    public function testFiveTestsOfATableChangeARoute(): void
    {
        $this->register();
        // A sheet with two balls, typed.
        $this->open('/sheets/new');
        $this->type('#new_sheet_name', 'On the slow table');
        $this->click('.card-form .button');
        $this->see('[data-desk]');
        $this->click('.sheet-ways summary');
        $this->type('#lines', 'cue 2,1; 9 6,3');
        $this->click('.sheet-ways [value="typed"]');
        $this->see('[data-ball="9"]');
        $sheet = (string) preg_replace('#/layout.*#', '', $this->browser->getCurrentURL());
        $before = $this->route($sheet);
        // A table of one's own and its tests, by thumb.
        $this->open('/tables');
        $this->type('[name="name"]', 'Slow one');
        $this->click('.kind[value="usual"]');
        $this->see('.test-list');
        self::assertSame([], $this->violations());
        $table = (string) parse_url($this->browser->getCurrentURL(), \PHP_URL_PATH);
        $this->window(390, 844);
        $shots = [['roll', '4.6', 5.2], ['roll', '4.5', 5.1], ['along', '3.2', null], ['along', '3.1', null]];
        foreach ($shots as $i => [$test, $long, $seconds]) {
            $this->open("$table/tests/$test");
            $this->see('[data-table-test]');
            if (0 === $i) {
                self::assertSame([], $this->violations());
                // The cloth is tapped where the ball stopped: the field follows.
                $this->drag([$this->pointOf('[data-table] .cloth', 0.5, 0.425)], 'touch');
                $this->until(fn (): bool => '' !== $this->attribute('[name="end_cue"]', 'value'), 'the tap fills in nothing');
            } else {
                $this->type('[name="end_cue"]', "$long,2");
            }
            if (null !== $seconds) {
                $this->type('[name="seconds"]', (string) $seconds);
            }
            $this->click('.test-form .button');
            $this->until(fn (): bool => str_contains($this->text('.side'), 'Written down'), 'it is not written down');
        }
        $this->open("$table/tests/lag");
        $this->type('[name="end_cue"]', '1.9,2');
        $this->type('[name="seconds"]', '6.9');
        $this->click('.test-form .button');
        $this->until(fn (): bool => str_contains($this->text('.side'), 'Written down'), 'the lag is not written down');
        $this->window(1280, 800);
        $this->open($table);
        $this->click('#table-fit form[action$="/fit"] .button');
        $this->browser->wait(120, 250)->until(fn (): bool => str_contains($this->text('#table-fit'), '5 tests; with 90 % intervals'));
        $this->click('form[action$="/take"] .button');
        $this->until(fn (): bool => str_contains($this->text('body'), 'as its tests found it'), 'it is not taken');
        // The sheet is played there, and the cue ball's way is another.
        $this->browser->get("$sheet/layout");
        $this->click('.sheet-table summary');
        $this->click('[value="table"][name="change"]');
        $this->until(fn (): bool => str_contains($this->text('.sheet-table summary'), 'Slow one'), 'the sheet is not on the table');
        self::assertNotSame($before, $this->route($sheet));
    }

    /** From a photograph, rendered by the product's own camera, over four taps to a layout and its plan. */
    public function testAPhotographBecomesALayoutAndAPlan(): void
    {
        $path = sys_get_temp_dir().'/zig-lane-table-'.bin2hex(random_bytes(4)).'.jpg';
        $rack = \dirname(__DIR__, 2).'/demo/1-thursday-rack.rack.json';
        $told = shell_exec(\sprintf(
            'cd %s && php bin/console lane:camera %s --out=%s',
            escapeshellarg(\dirname(__DIR__, 2)), escapeshellarg($rack), escapeshellarg($path),
        ));
        $told = json_decode((string) $told, true);
        self::assertIsArray($told);
        self::assertIsArray($told['corners']);
        $this->register();
        $this->open('/sheets/new');
        $this->type('#new_sheet_name', 'Photographed');
        $this->click('.card-form .button');
        $this->see('[data-desk]');
        $this->click('.sheet-picture');
        $this->see('[data-picture-file]')->setFileDetector(new LocalFileDetector())->sendKeys($path);
        // The corners are proposed; the last two are taken back and tapped.
        $this->until(fn (): bool => str_contains($this->text('[data-picture-say]'), 'proposed'), 'no corners are proposed');
        $this->click('[data-picture-back]');
        $this->click('[data-picture-back]');
        self::assertStringContainsString('Tap 3 of 4', $this->text('[data-picture-say]'));
        foreach (\array_slice($told['corners'], 2) as $corner) {
            self::assertIsArray($corner);
            [$across, $down] = array_map(floatval(...), array_filter(array_values($corner), is_numeric(...)));
            $this->drag([$this->pointOf('[data-picture-canvas]', $across, $down)]);
        }
        $this->click('[data-picture-go]');
        $this->see('.seen-list li');
        self::assertSame([], $this->violations());
        $this->click('.seen-desk .is-primary');
        $this->see('[data-desk]');
        unlink($path);
        $file = RackFile::parse((string) file_get_contents($rack))->rack;
        foreach ($file->layout->balls() as $ball) {
            [$long, $short] = $this->spot($ball->label());
            [$trueLong, $trueShort] = $file->layout->spot($ball)->inDiamonds($file->equipment->table);
            self::assertEqualsWithDelta($trueLong, $long, 0.05, $ball->label());
            self::assertEqualsWithDelta($trueShort, $short, 0.05, $ball->label());
        }
        $this->click('a.next');
        $this->see('#chart [data-route="cue"]');
    }

    public function testABreakBecomesASheet(): void
    {
        $this->register();
        $this->open('/break?game=nine-ball');
        $this->see('#look-1 .break-figures');
        $before = $this->text('.break-figures .is-main');
        // Softer, by the keyboard: the figures follow.
        $this->browser->executeScript('const s = document.querySelector("[name=speed]"); s.value = 4; s.dispatchEvent(new Event("change", {bubbles: true}));');
        $this->until(fn (): bool => [] === $this->browser->findElements(
            WebDriverBy::cssSelector('#look-1 .is-caution'),
        ), 'the caution of a hard break stays');
        self::assertNotSame('', $before);
        self::assertSame([], $this->violations());
        $this->click('#look-1 form .button');
        $this->see('[data-desk]');
        $this->see('[data-ball="9"]');
        self::assertStringContainsString('After a break', $this->text('h1'));
    }

    private function route(string $sheet): string
    {
        $this->browser->get("$sheet/plan");
        $this->see('#chart [data-route="cue"]');

        return $this->attribute('#chart [data-route="cue"] path', 'd');
    }
}
