<?php

/*
 * What a player waits for on the shot desk, measured in the browser (bin/load felt): from a step of the speed slider to the new route on
 * the screen. Needs chromedriver. Use: felt.php URL RUN [steps]
 */

declare(strict_types=1);

use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\WebDriverBy;

require __DIR__.'/client.php';

[, $url] = $argv;
$steps = max(10, min(500, (int) ($argv[3] ?? 80)));
[[$email, $sheet, $ball, $pocket]] = players(lane(), 1);
$driver = proc_open(['chromedriver', '--port=9587', '--log-level=OFF'], [1 => ['file', '/dev/null', 'w'], 2 => ['file', '/dev/null', 'w']], $pipes);
usleep(1_500_000);
$options = new ChromeOptions();
$options->addArguments([
    '--headless=new', '--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage', '--disable-quic', '--no-first-run',
    '--disable-background-networking', '--disable-component-update', '--disable-sync', '--window-size=1280,800',
    '--user-data-dir='.sys_get_temp_dir().'/lane-felt-'.getmypid(),
]);
$capabilities = DesiredCapabilities::chrome();
$capabilities->setCapability(ChromeOptions::CAPABILITY, $options);
$browser = RemoteWebDriver::create('http://127.0.0.1:9587', $capabilities, 30000, 120000);
try {
    $browser->get("$url/sign-in");
    $browser->findElement(WebDriverBy::cssSelector('[name="email"]'))->sendKeys($email);
    $browser->findElement(WebDriverBy::cssSelector('[name="password"]'))->sendKeys('eleven chars')->submit();
    $browser->get("$url/sheets/$sheet/plan?ball=$ball&pocket=$pocket&lengths=2");
    $browser->manage()->timeouts()->setScriptTimeout(120);
    $times = $browser->executeAsyncScript(<<<'JS'
        const [steps, done] = arguments;
        const slider = document.querySelector('[data-lengths]');
        const route = () => document.querySelector('#chart [data-route="cue"]')?.outerHTML ?? document.querySelector('#chart').innerHTML;
        const times = [];
        const step = (i) => {
            if (i === steps) {
                done(times);
                return;
            }
            const before = route();
            const from = performance.now();
            const watch = new MutationObserver(() => {
                if (route() !== before) {
                    watch.disconnect();
                    requestAnimationFrame(() => requestAnimationFrame(() => {
                        times.push(performance.now() - from);
                        setTimeout(step, 120, i + 1);
                    }));
                }
            });
            watch.observe(document.querySelector('.board'), { childList: true, subtree: true });
            slider.value = 1.5 + 0.05 * ((i * 7) % 40);
            slider.dispatchEvent(new Event('input', { bubbles: true }));
        };
        step(0);
        JS, [$steps]);
    assert(is_array($times));
    sort($times);
    printf(
        "From the slider to the new route on the screen, %d steps: %.0f ms in the middle, %.0f ms at the 95th percentile. Others took %.0f %%.\n",
        count($times),
        Crowd::quantile($times, 0.5),
        Crowd::quantile($times, 0.95),
        100 * stolen(),
    );
} finally {
    $browser->quit();
    proc_terminate($driver);
}
