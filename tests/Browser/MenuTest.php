<?php

declare(strict_types=1);

namespace ZigLane\Tests\Browser;

/** The menu holds every page of the player at every size, and no page is wider than the screen. */
final class MenuTest extends BrowserTestCase
{
    private const SIZES = [[1920, 1080], [1280, 800], [768, 1024], [390, 844]];

    public function testEveryEntryOfTheMenuIsReachedAtEverySize(): void
    {
        $this->demo();
        foreach (self::SIZES as [$width, $height]) {
            $this->window($width, $height);
            $this->open('/sheets');
            $this->click('details.account > summary');
            $this->see('.menu-pages');
            $entries = $this->browser->executeScript(
                'return [...document.querySelectorAll(".menu-pages a")].map(a => a.getAttribute("href"))',
            );
            self::assertIsArray($entries);
            self::assertCount(12, $entries);
            // Each entry and each choice is on the screen, and nothing lies over it.
            $hidden = $this->browser->executeScript(<<<'JS'
                return [...document.querySelectorAll('.account-menu :is(a, select, button)')].filter((one) => {
                    one.scrollIntoView({ block: 'nearest' });
                    const box = one.getBoundingClientRect();
                    const over = document.elementFromPoint(box.left + box.width / 2, box.top + box.height / 2);
                    return box.left < 0 || box.right > innerWidth + 0.5 || box.top < 0 || box.bottom > innerHeight + 0.5
                        || !(one === over || one.contains(over));
                }).map((one) => one.textContent.trim().slice(0, 20));
                JS);
            self::assertSame([], $hidden, "$width x $height");
            // From each page to the next.
            foreach ($entries as $entry) {
                self::assertIsString($entry);
                if (null === $this->browser->executeScript('return document.querySelector("details.account[open]")')) {
                    $this->click('details.account > summary');
                }
                $this->click(".menu-pages a[href=\"$entry\"]");
                $this->until(fn (): bool => str_ends_with($this->browser->getCurrentURL(), $entry), "$entry is not reached at $width");
                $this->see('main h1, h1');
                self::assertStringNotContainsString('went wrong', $this->browser->getTitle());
            }
        }
    }

    public function testNoPageIsWiderThanTheScreen(): void
    {
        $this->demo();
        $path = $this->browser->executeScript(
            'return [...document.querySelectorAll("a")].map(a => a.pathname.match(/^.sheets.[0-9a-f-]{36}/)).find(found => found)[0]',
        );
        self::assertIsString($path);
        $this->open('/tables');
        $table = $this->browser->executeScript('return document.querySelector(\'main a[href^="/tables/"]\').getAttribute("href")');
        self::assertIsString($table);
        $pages = [
            '/sheets', '/sheets/new', $path, "$path/plan", "$path/run-out", "$path/options", "$path/player", "$path/picture", $table, '/tables',
            '/break', '/drills', '/drills/side-door', '/lessons', '/progress', '/log', '/log/records', '/numbers', '/groups', '/shares', '/account',
        ];
        foreach ($pages as $page) {
            $this->open($page);
            $this->see('.masthead');
            foreach ([1280, 768, 390] as $width) {
                $this->window($width, 844);
                // Once it has settled.
                $this->until(
                    fn (): bool => $this->browser->executeScript('return document.documentElement.scrollWidth') <= $width,
                    "$page is wider than $width",
                );
                self::assertSame($width, $this->browser->executeScript('return innerWidth'));
            }
        }
    }

    private function demo(): void
    {
        $this->window(1280, 800);
        $this->open('/sign-in');
        $this->click('.demo .button');
        $this->see('.sheet');
    }
}
