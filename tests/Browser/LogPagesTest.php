<?php

declare(strict_types=1);

namespace ZigLane\Tests\Browser;

/** The pages of the log with a log in them: files go up through the whole server, and nothing keeps anybody from reading them. */
final class LogPagesTest extends BrowserTestCase
{
    public function testALogGoesUpAndItsPagesCanBeReadByEverybody(): void
    {
        $this->register();
        $this->open('/log');
        $this->see('.log-tools #file')->sendKeys(\dirname(__DIR__, 2).'/demo/player.log.json');
        $this->click('.log-tools form[action$="/log/import"] button');
        // A worker takes it in, and the page says so by itself.
        $this->until(fn (): bool => str_contains($this->text('#import'), '404'), 'the file is not taken in');
        $this->open('/sheets/new');
        foreach ([[1280, 800], [390, 844]] as [$width, $height]) {
            $this->window($width, $height);
            foreach (['/log', '/log?kind=thin&made=0', '/log/records', '/numbers', '/password'] as $page) {
                $this->open($page);
                $this->see('main h1, main h2, .log-page');
                self::assertSame([], $this->violations(), "$page at $width");
            }
        }
        $this->open('/numbers');
        // A plot is drawn, and says no more than the table below it.
        $this->see('[data-plot="pots"] canvas');
        self::assertStringContainsString('404 shots', $this->text('main'));
        $this->open('/log');
        $this->click('.log-table tbody a');
        $this->see('#review');
        self::assertSame([], $this->violations(), 'review');
    }
}
