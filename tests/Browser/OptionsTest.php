<?php

declare(strict_types=1);

namespace ZigLane\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;

/** Go for it or play safe in the browser: worked out while the page stands open, by keys and by a thumb. */
final class OptionsTest extends BrowserTestCase
{
    public function testAPositionIsWeighedAndAnOptionTakenByKeysAlone(): void
    {
        $this->decided();
        $this->enter('.ask-options button');
        $this->weighed();
        $first = $this->text('.this-option h2');
        $this->enter('.options li:nth-child(2) a');
        $this->until(
            fn (): bool => 'true' === $this->attribute('.options li:nth-child(2) a', 'aria-current'),
            'the second option was not drawn',
        );
        $this->see('#options [data-route="cue"]');
        self::assertNotSame('', $first);
        $this->enter('.this-option [value="plan"]');
        $this->see('#chart [data-route="cue"]');
    }

    public function testOnAPhoneTheTableAndTheFirstOptionAreSeenTogether(): void
    {
        $this->decided();
        $this->click('.ask-options .button');
        $this->weighed();
        $this->window(390, 844);
        $this->browser->navigate()->refresh();
        $this->see('a.option');
        $table = $this->element('#options .chart svg');
        $option = $this->element('a.option');
        self::assertLessThan(844, $option->getLocation()->getY());
        self::assertLessThan(400, $table->getLocation()->getY());
        $wide = $this->browser->executeScript('return document.documentElement.scrollWidth - document.documentElement.clientWidth');
        self::assertLessThanOrEqual(0, $wide);
        self::assertSame([], $this->violations());
    }

    /** Comes to a control by the keyboard, and presses Enter there. */
    private function enter(string $css): void
    {
        $this->see($css);
        $this->tabTo($css);
        $this->press(WebDriverKeys::ENTER);
    }

    /** A sheet of nine-ball with two balls and the cue ball, at its options. */
    private function decided(): void
    {
        $this->register();
        $this->click('.list-tools .button.is-primary');
        $this->type('#new_sheet_name', 'A decision');
        $this->click('.card-form .button');
        $this->see('[data-desk]');
        $version = 1;
        foreach (['cue' => '2.2,1.1', '3' => '4.9,3.35', '9' => '4.3,0.5'] as $ball => $spot) {
            $this->place((string) $ball, $spot);
            $this->awaitSaved(++$version);
        }
        $this->open(str_replace('/layout', '/options', (string) parse_url($this->browser->getCurrentURL(), \PHP_URL_PATH)));
        $this->see('.ask-options');
    }

    private function place(string $ball, string $spot): void
    {
        $this->element('[data-table]')->sendKeys('cue' === $ball ? '0' : $ball);
        $this->see("[data-tray-ball=\"$ball\"].is-selected");
        $this->press(WebDriverKeys::ENTER);
        $this->press($spot, WebDriverKeys::ENTER);
    }

    private function weighed(): void
    {
        $this->browser->wait(60, 100)->until(fn (): bool => [] !== $this->browser->findElements(WebDriverBy::cssSelector('a.option'))
            && [] === $this->browser->findElements(WebDriverBy::cssSelector('#weighing progress')));
    }
}
