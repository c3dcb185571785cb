<?php

declare(strict_types=1);

/*
 * Takes the pictures in docs/screenshots from the demo data of a running application: bin/screenshots calls it with the
 * application's address and the port of a chromedriver.
 */

use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\LocalFileDetector;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverDimension;
use Facebook\WebDriver\WebDriverExpectedCondition;

require dirname(__DIR__).'/vendor/autoload.php';

[, $url, $port] = $argv;
$folder = dirname(__DIR__).'/docs/screenshots';
$profile = sys_get_temp_dir().'/zig-lane-shots-'.getmypid();
$options = new ChromeOptions();
$options->addArguments([
    '--headless=new', '--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage', '--disable-quic', '--no-first-run',
    '--disable-background-networking', '--disable-component-update', '--disable-sync', '--hide-scrollbars',
    '--force-device-scale-factor=1', '--window-size=1280,800', '--user-data-dir='.$profile,
]);
$capabilities = DesiredCapabilities::chrome();
$capabilities->setCapability(ChromeOptions::CAPABILITY, $options);
$browser = RemoteWebDriver::create('http://127.0.0.1:'.$port, $capabilities);

$see = static function (string $css) use ($browser) {
    $browser->wait(15, 50)->until(WebDriverExpectedCondition::presenceOfElementLocated(WebDriverBy::cssSelector($css)));
    $browser->executeScript('return document.fonts.ready.then(() => true)');

    return $browser->findElement(WebDriverBy::cssSelector($css));
};
$window = static function (int $width, int $height) use ($browser): void {
    [$across, $down] = $browser->executeScript('return [window.outerWidth - window.innerWidth, window.outerHeight - window.innerHeight];');
    $browser->manage()->window()->setSize(new WebDriverDimension($width + $across, $height + $down));
};
$picture = static function (string $name) use ($browser, $folder): void {
    $browser->executeScript('document.activeElement?.blur()');
    $browser->takeScreenshot("$folder/$name.png");
};

try {
    $window(1280, 800);
    $browser->get($url.'/sign-in');
    $see('.demo .button')->click();
    $see('.sheet');
    $picture('list');
    $sheet = null;
    foreach ($browser->findElements(WebDriverBy::cssSelector('a.sheet')) as $link) {
        if (str_contains($link->getText(), 'Thursday rack')) {
            $sheet = str_replace('/layout', '', (string) $link->getDomProperty('href'));
        }
    }
    $browser->get($sheet.'/layout?ball=5');
    $see('[data-ball="5"].is-selected');
    $picture('layout');
    $browser->get($sheet.'/plan');
    $see('[data-chance]');
    $picture('shot');
    foreach ([
        'zone' => '&look=zone&odds=70&next_pocket=FL',
    ] as $name => $look) {
        $browser->get($sheet.'/plan?ball=4&pocket=FL&clock=12:25&tips=0.82&lengths=2.7&elevation=1'.$look);
        $see('zone' === $name ? '.of-ahead' : '#overlay svg');
        $see('[data-chance]');
        // The slower part of a look has come.
        $browser->wait(20, 100)->until(static fn (): bool => [] === $browser->findElements(WebDriverBy::cssSelector('#overlay [hx-get]')));
        $picture($name);
    }
    $browser->get($url.'/sheets');
    $see('.sheet');
    $runs = [];
    foreach ($browser->findElements(WebDriverBy::cssSelector('a.sheet')) as $link) {
        foreach ([
            'run' => 'Nine to go',
        ] as $name => $words) {
            if (str_contains($link->getText(), $words)) {
                $runs[$name] = [str_replace('/layout', '', (string) $link->getDomProperty('href')), 1];
            }
        }
    }
    foreach ($runs as $name => [$address, $leg]) {
        // Planned by the workers when the demo was loaded; asked for again if this demo is older.
        $browser->get("$address/run-out?leg=$leg");
        if ([] === $browser->findElements(WebDriverBy::cssSelector('.plans, #progress progress'))) {
            $see('.ask .button')->click();
        }
        $see('.strip .card, #progress progress');
        $browser->wait(120, 500)->until(
            static fn (): bool => [] === $browser->findElements(WebDriverBy::cssSelector('#progress progress')),
        );
        $browser->get("$address/run-out?leg=$leg");
        $see('.strip .card');
        $picture($name);
    }
    // The decision, weighed by the workers when the demo was loaded.
    $browser->get($url.'/sheets');
    $see('.sheet');
    foreach ($browser->findElements(WebDriverBy::cssSelector('a.sheet')) as $link) {
        if (str_contains($link->getText(), 'Go for it')) {
            $browser->get(str_replace('/layout', '/options', (string) $link->getDomProperty('href')));
            break;
        }
    }
    $see('.ask-options');
    $browser->wait(120, 500)->until(
        static fn (): bool => [] === $browser->findElements(WebDriverBy::cssSelector('#weighing progress')),
    );
    $see('a.option');
    $picture('options');
    // The rack at the table, with the plan that was just pictured; the demo player's numbers, and a rack of his log.
    $browser->get($runs['run'][0].'/table');
    $see('.begin .answer')->click();
    $see('[data-call-ball]');
    $atTable = $browser->getCurrentURL();
    $browser->get($url.'/numbers');
    $browser->wait(240, 500)->until(
        static fn (): bool => [] === $browser->findElements(WebDriverBy::cssSelector('#fit progress')),
    );
    $browser->get($url.'/numbers');
    $see('[data-plot="gains"] canvas');
    $picture('numbers');
    // What was only tried is of today.
    $browser->get($url.'/log?to='.date('Y-m-d', strtotime('-1 day')));
    // The first rack that was shot, and not only tried.
    $racks = array_map(
        static fn ($link): string => (string) $link->getDomProperty('href'),
        $browser->findElements(WebDriverBy::cssSelector('.log-table tbody a')),
    );
    foreach ($racks as $rack) {
        $browser->get($rack);
        if ([] !== $browser->findElements(WebDriverBy::cssSelector('#review .key-figures'))) {
            break;
        }
    }
    // What it cost is worked out when the demo is loaded; asked for again if this demo is older.
    foreach ($browser->findElements(WebDriverBy::cssSelector('#review form[action$="/costs"] .button')) as $ask) {
        if ([] === $browser->findElements(WebDriverBy::cssSelector('#review .key-figures'))) {
            $ask->click();
        }
        break;
    }
    $browser->wait(120, 500)->until(WebDriverExpectedCondition::presenceOfElementLocated(WebDriverBy::cssSelector('#review .key-figures')));
    $picture('review');
    // Drills: the list, one with its par, changed, on paper, and how they go over the weeks.
    $browser->get($url.'/drills');
    $see('.drill-list');
    $picture('drills');
    $browser->get($url.'/drills/rings-in-the-middle');
    foreach ($browser->findElements(WebDriverBy::cssSelector('.pars form .button')) as $ask) {
        $ask->click();
    }
    $browser->wait(240, 500)->until(static fn (): bool => [] !== $browser->findElements(WebDriverBy::cssSelector('.par-plot'))
        && [] === $browser->findElements(WebDriverBy::cssSelector('.pars[hx-get]')));
    $browser->get($url.'/drills/rings-in-the-middle?stroke=1');
    $see('.route');
    $picture('drill');
    // The demo player's table, found from its tests, and the break of nine-ball.
    $browser->get($url.'/tables');
    $see('.table-name')->click();
    $see('#table-fit');
    $browser->wait(240, 500)->until(static fn (): bool => [] === $browser->findElements(WebDriverBy::cssSelector('#table-fit progress')));
    $browser->navigate()->refresh();
    $see('#table-fit');
    $picture('table');
    // The demo rack as a photograph, rendered by the product's own camera, with its corners tapped.
    $photo = sys_get_temp_dir().'/zig-lane-photo-'.getmypid().'.jpg';
    $camera = sprintf(
        'php %s/bin/console lane:camera %s/demo/1-thursday-rack.rack.json --out=%s',
        dirname(__DIR__), dirname(__DIR__), escapeshellarg($photo),
    );
    shell_exec($camera);
    $browser->get($sheet.'/picture');
    $see('[data-picture-file]')->setFileDetector(new LocalFileDetector())->sendKeys($photo);
    $browser->wait(15, 50)->until(static fn (): bool => true === $browser->executeScript(
        'return document.querySelector("[data-picture-say]").textContent.includes("proposed")',
    ));
    $picture('picture');
    unlink($photo);
    $browser->get($url.'/break?game=nine-ball');
    $see('.break-figures');
    $picture('break');
    // The coach's group, a lesson of his, and what a pupil shows him.
    $browser->get($url.'/groups');
    $browser->get((string) $see('section:nth-of-type(2) .share-list a')->getDomProperty('href'));
    $see('.pupils-table');
    $picture('group');
    $browser->get((string) $see('.pupils-table a[href*="/set/"]')->getDomProperty('href'));
    $browser->wait(120, 500)->until(static fn (): bool => [] !== $browser->findElements(WebDriverBy::cssSelector('.plan-route')));
    $browser->executeScript('document.querySelector("#item-work-2").scrollIntoView({block: "end", behavior: "instant"})');
    $picture('lesson');
    $browser->get($url.'/shares');
    $browser->get((string) $see('h2 + .share-list a[href*="/shared/"]')->getDomProperty('href'));
    $browser->wait(120, 500)->until(static function () use ($browser): bool {
        $isThere = [] !== $browser->findElements(WebDriverBy::cssSelector('.strip .card'));
        $isThere || $browser->navigate()->refresh();

        return $isThere;
    });
    $browser->executeScript('document.querySelector(".strip [data-leg=\"2\"]").click()');
    $see('.strip [data-leg="2"][aria-current]');
    $see('.thread');
    $picture('shared');
    $browser->get($url.'/drills/rings-in-the-middle');
    $see('[name="mode"][value="scored"]')->click();
    $see('[data-practice]');
    $drill = $browser->getCurrentURL();
    $browser->get($sheet.'/plan');
    $see('[data-chance]');
    $see('[data-theme-switch]')->click();
    $see('html[data-theme="hall"]');
    $browser->navigate()->refresh();
    $see('[data-chance]');
    $picture('shot-hall-light');
    $see('[data-theme-switch]')->click();
    $window(500, 1000);
    $see('svg.lane-table');
    $browser->wait(15, 50)->until(static fn () => str_contains(
        (string) $browser->executeScript('return document.cookie'),
        'lane-upright=1',
    ));
    $window(500, 900);
    $browser->get($atTable);
    $see('[data-call-ball]');
    $picture('shoot-phone');
    $browser->get($drill);
    $see('[data-practice]');
    $picture('practice-phone');
} finally {
    $browser->quit();
    exec('rm -rf '.escapeshellarg($profile));
}
