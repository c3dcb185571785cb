<?php

declare(strict_types=1);

namespace ZigLane\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;

/** A rack shot on a phone: two touches a shot, planned again after each, and nothing lost where the room has no network. */
final class AtTheTableTest extends BrowserTestCase
{
    private const RACK = [
        'format' => 'zig-lane/rack', 'version' => 1, 'name' => 'Phone rack', 'game' => 'nine-ball', 'ballInHand' => 'none',
        'layoutDiamonds' => [
            'cue' => [2.2, 2.2],
            '1' => [3.4, 1.1],
            '2' => [6.2, 3.1],
            '3' => [1.2, 0.9],
            '4' => [5.4, 0.8],
            '5' => [7.1, 2.2],
            '6' => [2.9, 3.3],
            '7' => [4.4, 2.1], '8' => [6.6, 1.0], '9' => [0.9, 2.9],
        ],
    ];

    public function testAWholeRackOnAPhoneWithMissesAndWithoutNetworkForTwoShots(): void
    {
        $this->begin();
        $shots = $made = 0;
        while ('over' !== ($stage = $this->attribute('[data-shoot]', 'data-stage')) && $shots < 15) {
            if ('turn' === $stage) {
                $this->click('[data-go-on]');
            }
            $this->planned();
            ++$shots;
            if (2 === $shots) {
                $this->miss();
            } elseif (4 === $shots) {
                $this->withoutNetwork();
                ++$shots;
                $made += 2;
            } else {
                $this->made();
                ++$made;
            }
        }
        self::assertSame(9, $made);
        self::assertSame(10, $shots);
        self::assertStringContainsString('Run out', $this->text('[data-call]'));
        // Every shot is in the log, once.
        $this->open('/log');
        self::assertCount(10, $this->browser->findElements(WebDriverBy::cssSelector('.log-table tbody tr')));
        $this->open('/log/records');
        self::assertStringContainsString('9 of 10', $this->text('main'));
        $this->open('/numbers');
        self::assertStringContainsString('10 shots', $this->text('main'));
    }

    public function testATapPutsTheCueBallAndUndoTakesTheShotBack(): void
    {
        $this->begin();
        $this->planned();
        $this->click('[data-answer="made"]');
        $this->see('[data-stage="spot"]');
        // A ball that was moved is dragged first; then a tap says where the cue ball stopped.
        $from = $this->pointOf('[data-ball-of="9"]', 0.5, 0.5);
        $this->drag([$from, [$from[0] + 6, $from[1] - 14], [$from[0] + 10, $from[1] - 22]], 'touch');
        [$x, $y] = $this->pointOf('[data-table]', 0.5, 0.55);
        $this->drag([[$x, $y]], 'touch');
        $this->until(fn (): bool => '1 shot, 1 in a row' === $this->text('[data-count]'), 'the tap is not logged');
        $places = $this->browser->executeScript(
            'const s = JSON.parse(document.querySelector("[data-state]").textContent); return [s.balls.cue[0], s.balls["9"][0]];',
        );
        self::assertIsArray($places);
        self::assertEqualsWithDelta(3.6, $places[0] ?? -1.0, 0.8);
        self::assertNotEqualsWithDelta(0.9, $places[1] ?? 0.9, 0.05);
        $this->click('[data-undo-shot]');
        $this->until(fn (): bool => str_starts_with($this->text('[data-count]'), '0 shots'), 'it is not taken back');
    }

    private function begin(): void
    {
        $this->register();
        $path = (string) tempnam(sys_get_temp_dir(), 'rack').'.json';
        file_put_contents($path, json_encode(self::RACK, \JSON_THROW_ON_ERROR));
        $this->see('#file')->sendKeys($path);
        $this->click('.import .button');
        $this->see('[data-desk]');
        $this->window(390, 844);
        $this->click('.station-three');
        $this->click('.begin .answer');
        $this->see('[data-shoot]');
    }

    private function made(): void
    {
        $count = $this->text('[data-count]');
        $this->click('[data-answer="made"]');
        $this->click('[data-as-planned]');
        $this->until(
            fn (): bool => $count !== $this->text('[data-count]') && !str_contains($this->text('[data-count]'), 'not all sent'),
            'it is not logged',
        );
    }

    private function miss(): void
    {
        $this->click('[data-answer="missed"]');
        $this->click('[data-missed="left"]');
        $this->see('[data-stage="spot"]');
        $this->type('#typed', '3.9, 3.6');
        $this->click('.typed-spot .button');
        $this->until(fn (): bool => 'turn' === $this->attribute('[data-shoot]', 'data-stage'), 'the miss does not end the turn');
    }

    private function withoutNetwork(): void
    {
        $this->network(true);
        foreach ([1, 2] as $waiting) {
            $this->click('[data-answer="made"]');
            $this->click('[data-as-planned]');
            $this->until(fn (): bool => str_contains($this->text('#network'), "$waiting shot"), 'it does not say that it waits');
        }
        self::assertStringContainsString('Nothing is planned again', $this->text('#network'));
        // The page is kept for a reload without network too.
        $this->until(fn (): bool => true === $this->browser->executeAsyncScript(
            'const done = arguments[arguments.length - 1]; caches.match(location.pathname).then((kept) => done(Boolean(kept)));',
        ), 'the page is not kept');
        $this->network(false);
        $this->until(fn (): bool => null === $this->browser->executeScript(
            'return localStorage.getItem(Object.keys(localStorage).find((key) => key.startsWith("lane-entries-")) ?? "none")',
        ), 'the entries are not sent');
        $this->until(fn (): bool => '' === $this->text('#network'), 'it still says that there is no network');
    }
}
