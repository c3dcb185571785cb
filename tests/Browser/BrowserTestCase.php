<?php

declare(strict_types=1);

namespace ZigLane\Tests\Browser;

use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Exception\ElementClickInterceptedException;
use Facebook\WebDriver\Exception\ElementNotInteractableException;
use Facebook\WebDriver\Exception\NoSuchElementException;
use Facebook\WebDriver\Exception\StaleElementReferenceException;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\Remote\RemoteWebElement;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\TestCase;

/** The running application in Chromium. Nothing here sleeps: every step waits for what it needs to see. */
abstract class BrowserTestCase extends TestCase
{
    protected RemoteWebDriver $browser;
    /** The browser of the test before, emptied: to start one takes as long as many a test. */
    private static ?RemoteWebDriver $kept = null;
    /** @var list<RemoteWebDriver> those that a test started beside it */
    private array $more = [];
    /** @var list<string> */
    private static array $profiles = [];
    /** Keys that were pressed; a text that is typed counts as one. */
    protected int $presses = 0;
    /** Whether the page was checked for accessibility: that writes to the browser's log. */
    protected bool $isChecked = false;

    protected function setUp(): void
    {
        $this->browser = self::$kept ?? $this->started();
        self::$kept = null;
        $this->window(1280, 800);
    }

    /** A browser of its own beside the test's, with nothing of another's in it; it ends with the test. */
    protected function launched(): RemoteWebDriver
    {
        return $this->more[] = $this->started();
    }

    private function started(): RemoteWebDriver
    {
        $profile = sys_get_temp_dir().'/zig-lane-browser-'.bin2hex(random_bytes(6));
        if ([] === self::$profiles) {
            register_shutdown_function(static function (): void {
                self::$kept?->quit();
                exec('rm -rf '.implode(' ', array_map(escapeshellarg(...), self::$profiles)));
            });
        }
        self::$profiles[] = $profile;
        $options = new ChromeOptions();
        $options->addArguments([
            '--headless=new', '--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage', '--disable-quic', '--no-first-run',
            '--disable-background-networking', '--disable-component-update', '--disable-sync', '--hide-scrollbars',
            '--force-device-scale-factor=1', '--window-size=1280,800', '--user-data-dir='.$profile,
        ]);
        $capabilities = DesiredCapabilities::chrome();
        $capabilities->setCapability(ChromeOptions::CAPABILITY, $options);
        $capabilities->setCapability('goog:loggingPrefs', ['browser' => 'ALL']);

        return RemoteWebDriver::create('http://127.0.0.1:'.getenv('TEST_DRIVER_PORT'), $capabilities, 30000, 60000);
    }

    protected function tearDown(): void
    {
        $errors = [];
        foreach ($this->browser->manage()->getLog('browser') as $entry) {
            // An answer of 4xx to a refused change is told on the page; the browser writes it down as well.
            // So is a request that was given up for a newer one (hx-sync).
            if (
                \is_array($entry)
                && 'SEVERE' === $entry['level']
                && \is_string($entry['message'])
                && !str_contains($entry['message'], 'status of 4')
                // The accessibility checker tries styles that the page's policy refuses.
                && !($this->isChecked && str_contains($entry['message'], 'Applying inline style violates'))
                // Where a test cuts the network, requests fail.
                && !str_contains($entry['message'], 'ERR_INTERNET_DISCONNECTED')
                && 1 !== preg_match('/htmx:(afterRequest|sendAbort)\b/', $entry['message'])
            ) {
                $errors[] = $entry['message'];
            }
        }
        foreach ($this->more as $browser) {
            $browser->quit();
        }
        // What went wrong in a browser goes on in no other test.
        if ($this->status()->isSuccess() && [] === $errors) {
            $this->empty();
            self::$kept = $this->browser;
        } else {
            $this->browser->quit();
        }
        self::assertSame([], $errors, 'the browser wrote errors');
    }

    /** Nothing of a test stays for the next one: no cookie, nothing stored, no worker of the page, no network that is off. */
    private function empty(): void
    {
        $this->network(false);
        $this->browser->get('about:blank');
        $this->cdp('Network.clearBrowserCookies');
        $this->cdp('Storage.clearDataForOrigin', ['origin' => getenv('TEST_URL'), 'storageTypes' => 'all']);
        $this->browser->manage()->getLog('browser');
    }

    /**
     * @param array<string, mixed> $parameters
     *
     * @return mixed what Chromium's own command answers
     */
    protected function cdp(string $command, array $parameters = []): mixed
    {
        return $this->browser->executeCustomCommand('/session/:sessionId/goog/cdp/execute', 'POST', [
            'cmd' => $command, 'params' => (object) $parameters,
        ]);
    }

    /** The page's own size; the browser's window with its frame is left as it is. */
    protected function window(int $width, int $height): void
    {
        $this->cdp('Emulation.setDeviceMetricsOverride', ['width' => $width, 'height' => $height, 'deviceScaleFactor' => 1, 'mobile' => false]);
    }

    protected function open(string $path): void
    {
        $this->browser->get(getenv('TEST_URL').$path);
    }

    /**
     * @param list<string> $rules of axe-core; all of WCAG 2.2, levels A and AA, where none is named
     *
     * @return list<string>
     */
    protected function violations(array $rules = []): array
    {
        $this->isChecked = true;
        if (true !== $this->browser->executeScript('return "axe" in window')) {
            $this->browser->executeScript((string) file_get_contents(\dirname(__DIR__, 2).'/node_modules/axe-core/axe.min.js'));
        }
        $found = $this->browser->executeAsyncScript(
            'const done = arguments[arguments.length - 1];'
            ."const only = arguments[0].length ? arguments[0] : ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];"
            ."axe.run({runOnly: {type: arguments[0].length ? 'rule' : 'tag', values: only}, resultTypes: ['violations']})"
            .'.then((r) => done(r.violations.map((v) => v.id + ": " + v.nodes[0].html.slice(0, 120) + " " + (v.nodes[0].any[0]?.message ?? "").slice(0, 160))));',
            [$rules],
        );

        return array_values(array_filter(\is_array($found) ? $found : ['axe did not run'], is_string(...)));
    }

    /** Waits for a leg that is planned from where the balls lie now. */
    protected function planned(): void
    {
        $this->until(fn (): bool => true === $this->browser->executeScript(
            'const b = document.querySelector("[data-shoot]"), s = JSON.parse(document.querySelector("[data-state]").textContent);'
            .'return b.dataset.stage === "aim" && s.legs.length > 0 && !b.classList.contains("is-waiting")'
            .' && !document.querySelector("[data-odds]").textContent.includes("before");',
        ), 'there is no plan');
    }

    /** A new player, signed in, at the empty list. */
    protected function register(): void
    {
        $this->open('/register');
        $this->type('#registration_name', 'Ines');
        $this->type('#registration_email', bin2hex(random_bytes(6)).'@example.org');
        $this->type('#registration_password', 'eleven chars');
        $this->click('.card-form .button');
        $this->see('.list-page');
    }

    protected function element(string $css): RemoteWebElement
    {
        return $this->browser->findElement(WebDriverBy::cssSelector($css));
    }

    protected function see(string $css): RemoteWebElement
    {
        $this->until(fn (): bool => [] !== $this->browser->findElements(WebDriverBy::cssSelector($css)), "there is no $css");

        return $this->element($css);
    }

    /** @param \Closure(): bool $condition */
    protected function until(\Closure $condition, string $message): void
    {
        $this->browser->wait(60, 50)->until(static function () use ($condition): bool {
            try {
                return $condition();
            } catch (StaleElementReferenceException|NoSuchElementException) {
                return false;
            } catch (ElementClickInterceptedException|ElementNotInteractableException) {
                return false;
            }
        }, $message);
    }

    /** What an element says, found and read in one step: an answer may replace it at any time. */
    protected function text(string $css): string
    {
        return $this->read($css, 'e.innerText ?? e.textContent');
    }

    /** An attribute of an element, of a field's value what stands in it now; found and read in one step. */
    protected function attribute(string $css, string $name): string
    {
        return $this->read($css, "arguments[1] === 'value' && 'value' in e ? e.value : e.getAttribute(arguments[1]) ?? ''", $name);
    }

    /** @param string $expression of the element e, in JavaScript */
    private function read(string $css, string $expression, string ...$more): string
    {
        $read = '';
        $this->until(function () use ($css, $expression, $more, &$read): bool {
            $read = $this->browser->executeScript(
                "const e = document.querySelector(arguments[0]); return e === null ? null : String($expression).trim();",
                [$css, ...$more],
            );

            return null !== $read;
        }, "there is no $css");

        return \is_string($read) ? $read : '';
    }

    protected function click(string $css): void
    {
        // An answer may replace it between the look and the press.
        $this->until(function () use ($css): bool {
            $this->element($css)->click();

            return true;
        }, "$css cannot be pressed");
    }

    protected function type(string $css, string $text): void
    {
        $this->until(function () use ($css, $text): bool {
            $field = $this->element($css);
            $field->clear();
            $field->sendKeys($text);

            return $text === $this->attribute($css, 'value');
        }, "$css does not take '$text'");
    }

    /** Presses Tab until an element has the focus, as a person without a mouse does. */
    protected function tabTo(string $css): void
    {
        $this->see($css);
        for ($i = 0; $i < 90; ++$i) {
            if (true === $this->browser->executeScript('return document.activeElement?.matches(arguments[0]) ?? false', [$css])) {
                return;
            }
            $this->press(WebDriverKeys::TAB);
        }
        self::fail("Tab does not lead to $css");
    }

    /** Past what stands on every page, by the link that comes first for this. */
    protected function skip(): void
    {
        $this->press(WebDriverKeys::TAB, WebDriverKeys::ENTER);
    }

    /** A finger on the middle of an element, wherever on the page it is. */
    protected function tap(string $css): void
    {
        $this->see($css);
        $this->browser->executeScript(
            'document.querySelector(arguments[0]).scrollIntoView({block: "center", behavior: "instant"})',
            [$css],
        );
        $this->drag([$this->pointOf($css, 0.5, 0.5)], 'touch');
    }

    protected function press(string ...$keys): void
    {
        // As keys of the keyboard, not as text for an element: an answer that comes just now may replace the one that has the focus.
        // Control and Shift are held from their first mention to their second.
        $held = $steps = [];
        $this->presses += \count($keys);
        foreach ($keys as $key) {
            foreach (mb_str_split($key) as $one) {
                if (\in_array($one, [WebDriverKeys::CONTROL, WebDriverKeys::SHIFT], true)) {
                    $held[$one] = !($held[$one] ?? false);
                    $steps[] = ['type' => $held[$one] ? 'keyDown' : 'keyUp', 'value' => $one];
                } else {
                    array_push($steps, ['type' => 'keyDown', 'value' => $one], ['type' => 'keyUp', 'value' => $one]);
                }
            }
        }
        $this->browser->executeCustomCommand(
            '/session/:sessionId/actions',
            'POST',
            ['actions' => [['type' => 'key', 'id' => 'keyboard', 'actions' => $steps]]],
        );
    }

    /** @return array{float, float} a point of an element on the screen, by shares of its width and height */
    protected function pointOf(string $css, float $across, float $down): array
    {
        $this->see($css);
        /** @var array{float, float} $point */
        $point = $this->browser->executeScript(
            'const b = document.querySelector(arguments[0]).getBoundingClientRect(); return [b.x + arguments[1] * b.width, b.y + arguments[2] * b.height];',
            [$css, $across, $down],
        );

        return $point;
    }

    /** @return array{float, float} where a spot in diamonds is on the screen */
    protected function onScreen(float $long, float $short, float $diamond = 317.5): array
    {
        /** @var array{float, float} $point */
        $point = $this->browser->executeScript(
            'const t = document.querySelector("svg.lane-table"); const p = new DOMPoint(arguments[0], arguments[1]).matrixTransform(t.getScreenCTM()); return [p.x, p.y];',
            [$long * $diamond, (4 - $short) * $diamond],
        );

        return $point;
    }

    /**
     * Presses, moves and releases the pointer as one action.
     *
     * @param non-empty-list<array{float, float}> $path points on the screen
     */
    protected function drag(array $path, string $pointer = 'mouse'): void
    {
        $steps = [self::move($path[0], 0), ['type' => 'pointerDown', 'button' => 0]];
        foreach (\array_slice($path, 1) as $point) {
            $steps[] = self::move($point, 60);
        }
        $steps[] = ['type' => 'pointerUp', 'button' => 0];
        $this->browser->executeCustomCommand('/session/:sessionId/actions', 'POST', [
            'actions' => [['type' => 'pointer', 'id' => $pointer, 'parameters' => ['pointerType' => $pointer], 'actions' => $steps]],
        ]);
    }

    /**
     * @param array{float, float} $point
     *
     * @return array<string, int|string>
     */
    private static function move(array $point, int $duration): array
    {
        return [
            'type' => 'pointerMove',
            'duration' => $duration,
            'x' => (int) round($point[0]),
            'y' => (int) round($point[1]),
            'origin' => 'viewport',
        ];
    }

    /** @return array{float, float} where the page has a ball, in diamonds */
    protected function spot(string $ball): array
    {
        [$long, $short] = explode(' ', $this->read("[data-ball=\"$ball\"]", "e.dataset.long + ' ' + e.dataset.short")) + ['', ''];

        return [(float) $long, (float) $short];
    }

    protected function awaitSaved(int $version): void
    {
        $this->until(fn (): bool => (int) $this->attribute('[data-desk]', 'data-version') >= $version, "version $version was not saved");
    }

    /** Cuts the network off, or gives it back. */
    protected function network(bool $isOff): void
    {
        $this->browser->executeCustomCommand('/session/:sessionId/chromium/network_conditions', 'POST', [
            'network_conditions' => ['offline' => $isOff, 'latency' => 0, 'throughput' => -1],
        ]);
    }
}
