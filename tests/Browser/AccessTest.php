<?php

declare(strict_types=1);

namespace ZigLane\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;

/** Everybody's eyes: every page in its states, both themes, desk and phone, by axe-core; and text that is large enough to read. */
final class AccessTest extends BrowserTestCase
{
    private const SIZES = [[1280, 800], [390, 844]];
    /** @var list<string> */
    private array $found = [];

    public function testNoPageKeepsAnybodyFromReadingIt(): void
    {
        $this->window(...self::SIZES[0]);
        foreach (['/sign-in', '/register', '/nothing-here'] as $page) {
            $this->open($page);
            $this->see('main h1, h1');
            $this->look($page);
        }
        $this->open('/sign-in');
        $this->click('.demo .button');
        $this->see('.sheet');
        $sheet = $this->demoSheet('Thursday rack');
        $pages = [
            '/sheets' => '.sheet', '/sheets?q=nothing' => '.empty', '/sheets/new' => 'form', "$sheet/layout?ball=5" => '.is-selected',
            "$sheet/plan" => '#numbers .odds', "$sheet/run-out" => '[data-runout]', "$sheet/player" => 'form', "$sheet/table" => '#main > *',
            "$sheet/review" => '#main > *', "$sheet/tries" => '#main > *', "$sheet/options" => '.ask-options',
            '/log' => '.log-page', '/log/records' => 'table', '/numbers' => '#main > *',
            '/drills' => '.drill-list', '/drills/rings-in-the-middle' => '.pars', '/drills/side-door/card' => '[data-qr] svg',
            '/progress' => '.calendar', "$sheet/picture" => '[data-picture]', '/tables' => '.kinds', '/break' => '.break-figures',
            '/groups' => '.week', '/lessons' => '.share-list', '/shares' => '.share-list', '/account' => '.settings-form',
        ];
        foreach (['spread', 'zone', 'tips', 'read', 'land'] as $look) {
            $pages["$sheet/plan?look=$look"] = '#look > *';
        }
        foreach ($pages as $page => $sign) {
            $this->open($page);
            $this->see($sign);
            foreach (self::SIZES as [$width, $height]) {
                // The looks are the same parts on a phone.
                if ($width < 600 && str_contains($page, 'look=')) {
                    continue;
                }
                $this->window($width, $height);
                $this->look("$page, chart, $width");
                // The theme of the hall is other colours and nothing else.
                $this->theme('hall');
                $this->look("$page, hall, $width", ['color-contrast']);
                $this->theme('chart');
            }
        }
        // A refused spot is told at its field.
        $this->window(...self::SIZES[0]);
        $this->open("$sheet/layout?ball=5");
        $this->type('[data-place] [name="at"]', '99,99');
        $this->click('[data-place] [value="place"]');
        $this->see('[data-error]');
        self::assertSame('desk-error', $this->attribute('[data-place] [name="at"]', 'aria-describedby'));
        $this->look('a refused spot');
        $this->open("$sheet/plan");
        $this->type('[name="tips"]', '9');
        $this->see('[name="tips"][aria-invalid="true"][aria-describedby="shot-error"]');
        $this->look('a refused tip');
        $this->type('[name="tips"]', '0.4');
        $marked = WebDriverBy::cssSelector('[aria-invalid]');
        $this->until(fn (): bool => [] === $this->browser->findElements($marked), 'the field stays marked');
        // What comes of a change is announced once it stands still.
        $this->until(fn (): bool => str_contains($this->text('#said'), 'The cue ball stops'), 'nothing is announced');
        self::assertSame([], $this->found);
    }

    public function testTextOfDrawingsIsLargeEnough(): void
    {
        $this->open('/sign-in');
        $this->click('.demo .button');
        $this->see('.sheet');
        $sheet = $this->demoSheet('Thursday rack');
        foreach (self::SIZES as [$width, $height]) {
            $this->window($width, $height);
            foreach (['layout', 'plan', 'run-out'] as $page) {
                $this->open("$sheet/$page");
                $this->see('svg.lane-table text');
                $small = $this->browser->executeScript(<<<'JS'
                    return [...document.querySelectorAll('main svg text')].filter((text) => text.checkVisibility()
                        && !text.closest('.skin, .ball, .is-source') && text.getBoundingClientRect().width > 0).map((text) => {
                        const scale = Math.hypot(text.getScreenCTM().a, text.getScreenCTM().b);
                        return [text.textContent.trim(), Math.round(10 * parseFloat(getComputedStyle(text).fontSize) * scale) / 10];
                    }).filter(([, size]) => size < 11.9).map(String);
                    JS);
                self::assertSame([], $small, "$page at $width");
            }
        }
    }

    private function demoSheet(string $name): string
    {
        foreach ($this->browser->findElements(WebDriverBy::cssSelector('a.sheet')) as $link) {
            if (str_contains($link->getText(), $name)) {
                return (string) preg_replace('#^(/sheets/[^/]+)/.*$#', '$1', (string) $link->getAttribute('href'));
            }
        }
        self::fail("no demo sheet '$name'");
    }

    /** Its colours come gradually: they are brought to their end. */
    private function theme(string $name): void
    {
        $this->browser->executeScript(
            'document.documentElement.dataset.theme = arguments[0]; getComputedStyle(document.body).color;'
            .'document.getAnimations().filter(one => one instanceof CSSTransition).forEach(one => one.finish());',
            [$name],
        );
    }

    /** @param list<string> $rules of axe-core; all of them where none is named */
    private function look(string $what, array $rules = []): void
    {
        foreach ($this->violations($rules) as $violation) {
            $this->found[] = "$what: $violation";
        }
        $headings = $this->browser->executeScript('return document.querySelectorAll("h1").length');
        if (1 !== $headings) {
            $this->found[] = "$what: there is not one heading of the first order";
        }
    }
}
