<?php

declare(strict_types=1);

namespace ZigLane\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;

/** The whole job, from an empty table to a rack that is shot: once with nothing but keys, once with nothing but a finger on a phone. */
final class WholeJobTest extends BrowserTestCase
{
    private const SPOTS = ['cue' => '2.9,0.9', '4' => '4.4,2.4', '9' => '6.4,2.9'];

    public function testWithKeysAlone(): void
    {
        $this->register();
        $this->tabTo('.list-tools .button.is-primary');
        $this->press(WebDriverKeys::ENTER);
        $this->tabTo('#new_sheet_name');
        $this->press('By keys', WebDriverKeys::ENTER);
        $this->see('[data-desk]');
        foreach (self::SPOTS as $ball => $at) {
            $version = (int) $this->attribute('[data-desk]', 'data-version');
            $this->tabTo('[data-table]');
            $this->press('cue' === $ball ? '0' : (string) $ball);
            $this->see("[data-tray-ball=\"$ball\"].is-selected");
            $this->press(WebDriverKeys::ENTER);
            $this->press($at, WebDriverKeys::ENTER);
            $this->awaitSaved($version + 1);
        }
        $this->tabTo('.next-steps a:not(.next)');
        $this->press(WebDriverKeys::ENTER);
        $this->tabTo('.ask .buttons .button');
        $this->press(WebDriverKeys::ENTER);
        $this->see('.strip .card');
        $this->until(fn (): bool => str_contains($this->text('[data-run-odds]'), '% run out'), 'the run was not rehearsed');
        // However fast the legs are stepped through, the page stays.
        $this->browser->executeScript('window.stays = true');
        $right = WebDriverKeys::ARROW_RIGHT;
        $left = WebDriverKeys::ARROW_LEFT;
        $this->press($right, $left, $right, $left, $right);
        $this->until(fn (): bool => str_starts_with($this->text('.this-leg h2'), 'Leg 2: 9'), 'the keys do not step on');
        self::assertTrue($this->browser->executeScript('return window.stays === true'));
        $this->tabTo('.side a[href$="/table"]');
        $this->press(WebDriverKeys::ENTER);
        $this->tabTo('.begin .answer');
        $this->press(WebDriverKeys::ENTER);
        $this->shoot(function (string $css): void {
            $this->tabTo($css);
            $this->press(WebDriverKeys::ENTER);
        });
    }

    public function testWithAFingerOnAPhone(): void
    {
        $this->register();
        $this->window(390, 844);
        $this->tap('.list-tools .button.is-primary');
        $this->type('#new_sheet_name', 'By finger');
        $this->tap('.card-form .button');
        $this->see('[data-desk][data-upright="1"]');
        foreach (self::SPOTS as $ball => $at) {
            $version = (int) $this->attribute('[data-desk]', 'data-version');
            $this->tap("[data-tray-ball=\"$ball\"]");
            $this->type('[data-place] [name="at"]', $at);
            $this->tap('[data-place] [value="place"]');
            $this->awaitSaved($version + 1);
        }
        // A ball is dragged, and the page stays where it is.
        $this->browser->executeScript('document.querySelector("[data-table]").scrollIntoView({block: "start", behavior: "instant"})');
        $version = (int) $this->attribute('[data-desk]', 'data-version');
        $from = $this->pointOf('[data-ball="9"]', 0.5, 0.5);
        $scrolled = $this->browser->executeScript('return window.scrollY');
        $this->drag([$from, [$from[0] - 12, $from[1] + 10], [$from[0] - 24, $from[1] + 20]], 'touch');
        $this->awaitSaved($version + 1);
        self::assertEqualsWithDelta($scrolled, $this->browser->executeScript('return window.scrollY'), 2.0);
        $this->tap('.next-steps .next');
        $this->see('#chart [data-route="cue"]');
        // A swipe over the face scrolls; a tap puts the tip.
        $this->browser->executeScript('document.querySelector("#face").scrollIntoView({block: "center", behavior: "instant"})');
        [$x, $y] = $this->pointOf('#face', 0.5, 0.6);
        $this->drag([[$x, $y], [$x, $y - 60], [$x, $y - 120]], 'touch');
        self::assertSame('0', $this->attribute('[name="tips"]', 'value'));
        $this->browser->executeScript('document.querySelector("#face").scrollIntoView({block: "center", behavior: "instant"})');
        $this->drag([$this->pointOf('#face', 0.5, 0.42)], 'touch');
        $this->until(fn (): bool => '0' !== $this->attribute('[name="tips"]', 'value'), 'the tip was not put');
        $this->tap('.to-run a');
        $this->tap('.ask .buttons .button');
        $this->see('.strip .card');
        $this->until(fn (): bool => str_contains($this->text('[data-run-odds]'), '% run out'), 'the run was not rehearsed');
        $this->tap('.strip [data-leg="2"]');
        $this->until(fn (): bool => str_starts_with($this->text('.this-leg h2'), 'Leg 2: 9'), 'a tap does not step on');
        $this->tap('.side a[href$="/table"]');
        $this->tap('.begin .answer');
        $this->shoot(fn (string $css) => $this->tap($css));
        // What a thumb has to meet is large enough.
        $small = $this->browser->executeScript(<<<'JS'
            const all = [...document.querySelectorAll('main :is(button, select, input:not([type=hidden]), summary)')];
            return all.filter((e) => e.checkVisibility() && e.getBoundingClientRect().height > 0)
                .filter((e) => e.getBoundingClientRect().height < 43.5 && !e.closest('label'))
                .map((e) => `${e.tagName} ${e.textContent.trim()} ${e.getBoundingClientRect().height}`);
            JS);
        self::assertSame([], $small);
    }

    /** @param \Closure(string): void $press the way to press what a selector names */
    private function shoot(\Closure $press): void
    {
        $this->see('[data-shoot]');
        foreach (['1 shot', '2 shots'] as $count) {
            $this->planned();
            $press('[data-answer="made"]');
            $this->see('[data-stage="spot"]');
            $press('[data-as-planned]');
            $this->until(fn (): bool => str_starts_with($this->text('[data-count]'), $count), 'it is not logged');
        }
        $this->until(fn (): bool => 'over' === $this->attribute('[data-shoot]', 'data-stage'), 'the rack is not out');
        $this->browser->wait(20, 100)->until(
            fn (): bool => [] !== $this->browser->findElements(WebDriverBy::cssSelector('[data-on="over"] a[href$="/review"]')),
            'no way to the review',
        );
    }
}
