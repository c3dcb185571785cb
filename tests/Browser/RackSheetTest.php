<?php

declare(strict_types=1);

namespace ZigLane\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;

/** From an empty list to a saved shot, as a player does it. */
final class RackSheetTest extends BrowserTestCase
{
    public function testFromANewSheetToASavedShot(): void
    {
        $this->register();
        $this->click('.list-tools .button.is-primary');
        $this->type('#new_sheet_name', 'Browser rack');
        $this->click('.card-form .button');
        $this->see('[data-desk]');

        // Drag the cue ball from the tray onto the table with the mouse.
        $tray = $this->element('[data-tray-ball="cue"]')->getLocation();
        $this->drag([[$tray->getX() + 12, $tray->getY() + 12], $this->onScreen(6, 1), $this->onScreen(2.5, 1.25)]);
        $this->awaitSaved(2);
        $this->assertSpot(2.5, 1.25, 'cue', 0.02);

        // Place the 4 by keyboard: its number, Enter, the spot, Enter.
        $this->element('[data-table]')->sendKeys('4');
        $this->see('[data-tray-ball="4"].is-selected');
        $this->press(WebDriverKeys::ENTER);
        $this->press('4.35,2.45', WebDriverKeys::ENTER);
        $this->awaitSaved(3);
        $this->assertSpot(4.35, 2.45, '4', 1e-9);

        // Choose the ball and the pocket on the table, then the tip on the face and a speed.
        $this->click('a.next');
        $this->see('#chart [data-route="cue"]');
        self::assertSame('4', $this->attribute('[name="ball"]', 'value'));
        $this->click('[data-pocket="FR"] .grip');
        $this->until(fn (): bool => 'Leg 1: 4 in FR' === $this->text('#leg'), 'the other pocket was not called');
        $this->click('[data-pocket="FL"] .grip');
        $this->until(fn (): bool => 'Leg 1: 4 in FL' === $this->text('#leg'), 'the pocket was not called');
        $before = $this->route();
        $this->drag([$this->pointOf('#face', 0.6, 0.4)]);
        $this->until(fn (): bool => $before !== $this->route(), 'the route did not follow the tip');
        self::assertNotSame('0', $this->attribute('[name="tips"]', 'value'));
        $drawn = $this->route();
        $this->type('[name="lengths"]', '3.1');
        $this->until(
            fn (): bool => $drawn !== $this->route() && str_contains($this->text('#numbers'), 'The 4 drops in FL'),
            'the route did not follow the speed',
        );

        $landing = $this->attribute('[data-landing]', 'data-landing');
        $this->until(function () use (&$landing): bool {
            $now = $this->attribute('[data-landing]', 'data-landing');
            [$same, $landing] = [$now === $landing, $now];

            return $same;
        }, 'the landing does not settle');
        $fields = $this->fields();
        $this->click('.keep .button');
        $this->until(fn (): bool => str_contains($this->text('#numbers'), 'Saved with the sheet.'), 'the shot was not saved');

        $this->browser->navigate()->refresh();
        $this->see('#chart [data-route="cue"]');
        self::assertSame($fields, $this->fields());
        self::assertSame($landing, $this->attribute('[data-landing]', 'data-landing'));
        self::assertStringContainsString('Saved with the sheet.', $this->text('#numbers'));
    }

    public function testLooksAreLaidOverTheTableAndAStrokeIsTaken(): void
    {
        $this->sheetWith(['cue' => '2.9,0.9', '4' => '4.4,2.4', '5' => '6.4,2.9']);
        $this->click('.station-two');
        $this->see('#chart [data-route="cue"]');
        $this->see('#odds [data-chance]');
        $look = fn (string $name) => $this->browser->executeScript(
            'const look = document.querySelector(`[name="look"][value="${arguments[0]}"]`); look.click();',
            [$name],
        );

        $look('tips');
        $this->see('#overlay .of-fan');
        $this->see('#look [data-take]');
        $before = $this->fields();
        // Arrow keys go through them, and show which is which; Enter takes one.
        $this->browser->executeScript('document.querySelector("#look [data-take]").focus()');
        $this->press(WebDriverKeys::ARROW_RIGHT, WebDriverKeys::ARROW_RIGHT, WebDriverKeys::ARROW_DOWN);
        $third = $this->attribute('#look li:nth-child(4) [data-take]', 'data-for');
        $this->see(\sprintf('#overlay .over-line.is-pointed[data-for="%s"]', $third));
        self::assertSame($before, $this->fields());
        $this->press(WebDriverKeys::ENTER);
        $this->until(fn (): bool => $this->fields() !== $before, 'the stroke was not taken');

        $look('zone');
        $this->see('#overlay .area');
        self::assertStringContainsString('Shaded: the 5', $this->text('#look'));

        $look('land');
        $this->until(fn (): bool => str_contains($this->text('#look'), 'Click the cloth'), 'no word of what to do');
        [$x, $y] = $this->onScreen(5, 1.5);
        $this->browser->executeScript(
            'document.elementFromPoint(arguments[0], arguments[1]).dispatchEvent(new MouseEvent("click", {bubbles: true, clientX: arguments[0], clientY: arguments[1]}))',
            [$x, $y],
        );
        $this->see('#overlay .of-target');
        $this->until(fn (): bool => str_contains($this->text('#look'), '% · '), 'no landing is told');

        $look('route');
        $this->until(fn (): bool => str_contains($this->text('#look'), 'cue ball stops'), 'the strip does not tell the route again');
    }

    /** From an empty table to a run of two legs with nothing but the keyboard. */
    public function testTwoLegsArePlannedWithTheKeyboardAlone(): void
    {
        $this->sheetWith([]);
        $before = $this->presses;
        $this->skip();
        foreach (['0' => '2.9,0.9', '4' => '4.4,2.4', '5' => '6.4,2.9'] as $key => $at) {
            $version = (int) $this->attribute('[data-desk]', 'data-version');
            $this->tabTo('[data-table]');
            $this->press((string) $key);
            $this->see(\sprintf('[data-tray-ball="%s"].is-selected', '0' === (string) $key ? 'cue' : $key));
            $this->press(WebDriverKeys::ENTER);
            $this->press($at, WebDriverKeys::ENTER);
            $this->awaitSaved($version + 1);
        }
        $this->tabTo('a.next');
        $this->press(WebDriverKeys::ENTER);
        $this->see('#chart [data-route="cue"]');

        $this->skip();
        $this->planLegByKeys('FL', '2.2');
        $this->press(WebDriverKeys::CONTROL, WebDriverKeys::ENTER, WebDriverKeys::CONTROL);
        $this->see('[data-next-leg]');
        $this->skip();
        $this->tabTo('[data-next-leg]');
        $this->press(WebDriverKeys::ENTER);
        $this->until(fn (): bool => str_starts_with($this->text('#leg'), 'Leg 2: 5'), 'the second leg is not there');
        $this->see('#chart [data-route="cue"]');
        $this->press(WebDriverKeys::CONTROL, WebDriverKeys::ENTER, WebDriverKeys::CONTROL);
        $this->until(fn (): bool => str_contains($this->text('#numbers'), 'Saved with the sheet.'), 'the second leg was not saved');
        self::assertCount(2, $this->browser->findElements(WebDriverBy::cssSelector('.legs li')));
        // Three balls laid out, two legs chosen and saved.
        self::assertLessThan(90, $this->presses - $before);
    }

    /** The same with nothing but the mouse. */
    public function testTwoLegsArePlannedWithTheMouseAlone(): void
    {
        $this->sheetWith([]);
        foreach (['cue' => [2.9, 0.9], '4' => [4.4, 2.4], '5' => [6.4, 2.9]] as $ball => [$long, $short]) {
            $version = (int) $this->attribute('[data-desk]', 'data-version');
            $tray = $this->element("[data-tray-ball=\"$ball\"]")->getLocation();
            $this->drag([[$tray->getX() + 12, $tray->getY() + 12], $this->onScreen(5, 1), $this->onScreen($long, $short)]);
            $this->awaitSaved($version + 1);
        }
        $this->click('a.next');
        $this->see('#chart [data-route="cue"]');
        $this->click('[data-pocket="FL"] .grip');
        $this->until(fn (): bool => 'Leg 1: 4 in FL' === $this->text('#leg'), 'the pocket was not called');
        $this->drag([$this->pointOf('#face', 0.5, 0.42)]);
        $this->until(
            fn (): bool => '0' !== $this->attribute('[name="tips"]', 'value') && str_contains($this->text('#numbers'), 'The 4 drops in FL'),
            'the tip was not put',
        );
        $this->click('.keep .button');
        $this->click('[data-next-leg]');
        $this->until(fn (): bool => str_starts_with($this->text('#leg'), 'Leg 2: 5'), 'the second leg is not there');
        $this->see('#chart [data-route="cue"]');
        $this->click('.keep .button');
        $this->until(fn (): bool => str_contains($this->text('#numbers'), 'Saved with the sheet.'), 'the second leg was not saved');
        self::assertCount(2, $this->browser->findElements(WebDriverBy::cssSelector('.legs li')));
    }

    private function planLegByKeys(string $pocket, string $lengths): void
    {
        $this->tabTo('[name="pocket"]');
        $this->press($pocket);
        $this->until(fn (): bool => str_ends_with($this->text('#leg'), 'in '.$pocket), 'the pocket was not called');
        $this->tabTo('[data-height]');
        $this->press(WebDriverKeys::ARROW_UP, WebDriverKeys::ARROW_UP, WebDriverKeys::ARROW_UP);
        $this->until(fn (): bool => '0.18' === $this->attribute('[name="tips"]', 'value'), 'the tip was not moved');
        $this->tabTo('#lengths');
        $this->press(WebDriverKeys::CONTROL, 'a', WebDriverKeys::CONTROL);
        $this->press($lengths, WebDriverKeys::ENTER);
        $this->until(fn (): bool => str_contains($this->text('#numbers'), 'The 4 drops in '.$pocket), 'the shot was not drawn');
    }

    /**
     * A run is asked for, comes by itself while the page stands open, is stepped through and played by keys, and taken to the shot desk.
     */
    public function testARunIsPlannedSteppedThroughAndTaken(): void
    {
        $this->sheetWith(['cue' => '2.9,0.9', '4' => '4.4,2.4', '9' => '6.4,2.9']);
        $this->click('.next-steps a:not(.next)');
        $this->click('.ask .buttons .button');
        $this->see('.strip .card');
        $this->until(fn (): bool => str_contains($this->text('[data-run-odds]'), '% run out'), 'the run was not rehearsed');
        // The work goes on after a reload, and ends.
        $this->browser->navigate()->refresh();
        $this->see('.strip .card');
        $this->browser->wait(40, 200)->until(
            fn (): bool => [] === $this->browser->findElements(WebDriverBy::cssSelector('#progress progress')),
            'the plan does not end',
        );

        self::assertSame('Leg 1: 4 in', substr($this->text('.this-leg h2'), 0, 11));
        $this->press(WebDriverKeys::ARROW_RIGHT);
        $this->until(fn (): bool => str_starts_with($this->text('.this-leg h2'), 'Leg 2: 9'), 'the arrow key does not step on');
        $this->press(WebDriverKeys::ARROW_LEFT);
        $this->until(fn (): bool => str_starts_with($this->text('.this-leg h2'), 'Leg 1: 4'), 'the arrow key does not step back');
        $this->browser->executeScript('document.activeElement?.blur()');
        $this->click('[data-play="4"]');
        $this->see('[data-animation] .ball');
        $this->see('[data-runout][data-played]');

        $this->click('form[action$="/take"] .button');
        $this->see('#chart [data-route="cue"]');
        self::assertStringStartsWith('Leg 1: 4 in', $this->text('#leg'));
        self::assertStringContainsString('Saved with the sheet.', $this->text('#numbers'));
        self::assertCount(2, $this->browser->findElements(WebDriverBy::cssSelector('.legs li')));
    }

    public function testKeysMoveTakeOffUndoAndFreeze(): void
    {
        $this->sheetWith(['cue' => '2,2', '7' => '5,2']);
        $this->element('[data-table]')->sendKeys('7');
        $this->see('[data-ball="7"].is-selected');
        $this->press(WebDriverKeys::ARROW_RIGHT, WebDriverKeys::ARROW_UP);
        $this->awaitSaved(4);
        $this->assertSpot(5.125, 2.125, '7', 1e-6);
        $this->press(WebDriverKeys::SHIFT, WebDriverKeys::ARROW_LEFT, WebDriverKeys::SHIFT);
        $this->awaitSaved(5);
        $this->assertSpot(5.09375, 2.125, '7', 1e-6);
        $this->press('r');
        $this->awaitSaved(6);
        $this->assertSpot(5.09375, 3.91, '7', 1e-3);
        $this->press(WebDriverKeys::DELETE);
        $this->see('[data-tray-ball="7"]');
        $this->press(WebDriverKeys::CONTROL, 'z', WebDriverKeys::CONTROL);
        $this->see('[data-ball="7"]');
        $this->assertSpot(5.09375, 3.91, '7', 1e-3);
        $this->press(WebDriverKeys::CONTROL, WebDriverKeys::SHIFT, 'z', WebDriverKeys::SHIFT, WebDriverKeys::CONTROL);
        $this->see('[data-tray-ball="7"]');
    }

    public function testADraggedBallNeverOverlapsNorLeavesTheCloth(): void
    {
        $this->sheetWith(['cue' => '2,2', '7' => '5,2']);
        // Straight through the 7 and to a stop on it, then far out over the rail.
        $this->drag([$this->onScreen(2, 2), $this->onScreen(4, 2), $this->onScreen(5, 2)]);
        $this->awaitSaved(4);
        [$long, $short] = $this->spot('cue');
        self::assertGreaterThanOrEqual(0.18 - 1e-6, hypot($long - 5, $short - 2));
        self::assertLessThan(0.4, hypot($long - 5, $short - 2));

        $this->drag([$this->onScreen($long, $short), $this->onScreen(3, 1), $this->onScreen(2.5, -0.4)]);
        $this->awaitSaved(5);
        $this->assertSpot(2.5, 0.09, 'cue', 0.02);
        self::assertSame([], $this->browser->findElements(WebDriverBy::cssSelector('[data-error]')));
    }

    public function testAFingerDragsOnAPhoneHeldUpright(): void
    {
        $this->sheetWith(['cue' => '2,2', '7' => '5,2']);
        $this->window(500, 900);
        $this->until(fn (): bool => '1' === $this->attribute('[data-desk]', 'data-upright'), 'the table is not drawn upright');
        $at = fn (float $long, float $short): array => $this->onUprightScreen($long, $short);
        $this->drag([$at(5, 2), $at(5.5, 1.5), $at(6, 1)], 'touch');
        $this->awaitSaved(4);
        $this->assertSpot(6, 1, '7', 0.04);
    }

    public function testAnImpossibleTypedSpotIsToldOnThePage(): void
    {
        $this->sheetWith(['cue' => '2,2', '7' => '5,2']);
        $this->type('[name="at"]', '2,2.05');
        $this->click('[data-place] [value="place"]');
        $this->until(fn (): bool => str_contains($this->text('[data-error]'), 'overlaps'), 'the overlap was not told');
        $this->assertSpot(5, 2, '7', 1e-9);
    }

    public function testTheThemeForTheHallIsKept(): void
    {
        $this->register();
        $this->click('[data-theme-switch]');
        $this->see('html[data-theme="hall"]');
        $this->browser->navigate()->refresh();
        $this->see('html[data-theme="hall"]');
        self::assertCount(1, $this->browser->findElements(WebDriverBy::cssSelector('html[data-theme="hall"]')));
    }

    public function testTheDemoButtonLeadsToTheRacks(): void
    {
        $this->open('/sign-in');
        $this->click('.demo .button');
        $this->see('.sheet');
        self::assertGreaterThanOrEqual(4, \count($this->browser->findElements(WebDriverBy::cssSelector('.sheet svg'))));
    }

    /** @param array<int|string, string> $spots in diamonds, keyed by the ball's name, the last ball selected */
    private function sheetWith(array $spots): void
    {
        $this->register();
        $this->open('/sheets/new');
        $this->type('#new_sheet_name', 'Browser rack');
        $this->click('.card-form .button');
        $this->see('[data-desk]');
        $version = 1;
        foreach ($spots as $ball => $at) {
            $this->browser->executeScript(
                'const s = document.querySelector("[data-place] [name=ball]"); s.value = arguments[0]; s.dispatchEvent(new Event("change", {bubbles: true}));',
                [(string) $ball],
            );
            $this->type('[name="at"]', $at);
            $this->click('[data-place] [value="place"]');
            $this->awaitSaved(++$version);
        }
    }

    private function assertSpot(float $long, float $short, string $ball, float $delta): void
    {
        $spot = $this->spot($ball);
        self::assertEqualsWithDelta($long, $spot[0], $delta);
        self::assertEqualsWithDelta($short, $spot[1], $delta);
    }

    /** @return array{float, float} */
    private function onUprightScreen(float $long, float $short): array
    {
        /** @var array{float, float} $point */
        $point = $this->browser->executeScript(
            'const t = document.querySelector("svg.lane-table"); t.scrollIntoView(); const p = new DOMPoint(arguments[0], arguments[1]).matrixTransform(t.getScreenCTM()); return [p.x, p.y];',
            [(4 - $short) * 317.5, (8 - $long) * 317.5],
        );

        return $point;
    }

    private function route(): string
    {
        return implode(
            ' ',
            array_map(
                static fn ($path): string => (string) $path->getAttribute('d'),
                $this->browser->findElements(WebDriverBy::cssSelector('[data-route="cue"] path')),
            ),
        );
    }

    /** @return array<string, string> */
    private function fields(): array
    {
        $fields = [];
        foreach (['ball', 'pocket', 'clock', 'tips', 'lengths', 'elevation'] as $name) {
            $fields[$name] = $this->attribute("[name=\"$name\"]", 'value');
        }

        return $fields;
    }
}
