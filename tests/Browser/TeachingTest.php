<?php

declare(strict_types=1);

namespace ZigLane\Tests\Browser;

use Facebook\WebDriver\Remote\LocalFileDetector;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\WebDriverBy;

/** A coach at his desk and his pupil with a phone, each in a browser of his own. */
final class TeachingTest extends BrowserTestCase
{
    private RemoteWebDriver $coach;
    private RemoteWebDriver $pupil;

    protected function setUp(): void
    {
        parent::setUp();
        $this->coach = $this->browser;
        $this->pupil = $this->launched();
        $this->as($this->pupil);
        $this->window(390, 844);
    }

    protected function tearDown(): void
    {
        $this->as($this->coach);
        parent::tearDown();
    }

    public function testACoachTeachesAndHisPupilDoesIt(): void
    {
        // The coach makes a group and writes a lesson.
        [$code, $group] = $this->grouped();
        self::assertSame([], $this->violations());
        $this->open('/lessons');
        $this->type('.inline-form [name=name]', 'Dead stop');
        $this->click('.inline-form .button');
        $this->click('.lesson-page > p a[href*="edit"]');
        $this->browser->executeScript('document.querySelector("[name=kind]").value = "drill"; document.querySelector("[name=kind]").dispatchEvent(new Event("change"));');
        $this->browser->executeScript('document.querySelector("[name=drill]").value = "dead-stop";');
        $this->click('.add-item .button.is-primary');
        $this->see('.lesson-item.is-drill');
        $lesson = explode('?', $this->browser->getCurrentURL())[0];

        // The pupil joins by the code, on his phone, and lets his sheets be seen.
        $this->as($this->pupil);
        $this->register();
        $this->open('/join');
        $this->type('#code', $code);
        $this->tap('[value=sheets]');
        $this->tap('.card-form .button');
        $this->see('.joined');
        self::assertSame([], $this->violations());

        // The work is set.
        $this->as($this->coach);
        $this->browser->get($lesson);
        $this->click('.set-lesson summary');
        $this->click('.set-lesson [type=checkbox]');
        $this->click('.set-lesson .button');
        $this->until(fn (): bool => str_contains($this->text('#notice'), 'It is set'), 'it is not set');

        // It is due on his home page, and he does it by thumb.
        $this->as($this->pupil);
        $this->open('/sheets');
        self::assertStringContainsString('Dead stop', $this->text('.due-panel'));
        $this->tap('.due-panel a');
        $this->see('.item-work');
        self::assertSame([], $this->violations());
        $due = $this->browser->getCurrentURL();
        $this->tap('.item-work .button');
        $this->see('[data-practice]');
        for ($i = 0; $i < 10; ++$i) {
            $this->until(fn (): bool => str_contains($this->text('[data-practice]'), 'try '.($i + 1).' of'), "try $i does not come");
            $this->tap('[data-result="missed"]');
        }
        $this->until(fn (): bool => !str_contains($this->text('[data-practice]'), 'try 10 of'), 'the last try is not taken');
        // It is counted when the end stands there.
        $this->see('.big-score');
        $this->browser->get($due);
        self::assertStringContainsString('1 of 1', $this->text('.run-odds'));
        $this->tap('.done-form .button');
        $this->until(fn (): bool => str_contains($this->text('.run-odds'), 'Done'), 'it is not done');

        // The coach sees it in his group.
        $this->as($this->coach);
        $this->browser->get($group);
        self::assertStringContainsString('(1 done)', $this->text('.pupils-table'));
    }

    public function testACommentOnALegReachesThePupilAndBothSeeTheSameLeg(): void
    {
        [$code, $group] = $this->grouped();

        $this->as($this->pupil);
        $this->window(1280, 800);
        $this->register();
        $this->open('/join');
        $this->type('#code', $code);
        $this->click('[value=sheets]');
        $this->click('.card-form .button');
        $this->see('.joined');
        $this->open('/sheets');
        $path = \dirname(__DIR__, 2).'/demo/3-last-two-rail.rack.json';
        $this->see('#file')->setFileDetector(new LocalFileDetector())->sendKeys($path);
        $this->click('.import .button');
        $this->see('[data-desk]');
        $sheet = (string) preg_replace('#/layout.*#', '', $this->browser->getCurrentURL());
        $this->browser->get("$sheet/run-out");
        $this->click('.ask .buttons .button');
        $this->see('.strip [data-leg="2"]');

        // The coach finds it with his pupil, draws a spot to the second leg, and says a word.
        $this->as($this->coach);
        $this->browser->get($group);
        $this->click('.pupils-table a');
        $this->click('a[href*="/sheets/"]:not([href$="/sheets"])');
        $this->click('.strip [data-leg="2"]');
        $this->until(fn (): bool => str_contains($this->text('.thread h2'), 'leg 2'), 'the thread is not of leg 2');
        $this->click('[data-mark-tool="spot"]');
        $this->drag([$this->pointOf('.chart .lane-table', 0.5, 0.5)]);
        $this->see('[data-overlay="drawn"] .mark-spot');
        $this->type('.comment-form textarea', 'Lower here: the zone is longer.');
        $this->click('.comment-form .is-primary');
        $this->until(fn (): bool => str_contains($this->text('.comments'), 'Lower here'), 'the comment is not there');
        $this->see('[data-overlay="thread"] .mark-spot');
        self::assertSame([], $this->violations());

        // The pupil is told, and sees it on that leg with what was drawn.
        $this->as($this->pupil);
        $this->open('/sheets');
        self::assertStringContainsString('1 comment', $this->text('.due-panel'));
        $this->browser->get("$sheet/run-out");
        $this->click('.strip [data-leg="2"]');
        $this->until(fn (): bool => str_contains($this->text('.comments'), 'Lower here'), 'the pupil does not see it');
        $this->see('[data-overlay="thread"] .mark-spot');

        // He shows his leg; the coach follows him.
        $this->click('[data-show-leg]');
        $this->as($this->coach);
        $this->until(fn (): bool => $this->element('[data-follow-row]')->isDisplayed(), 'nobody is offered to be followed');
        $this->click('[data-follow-me]');
        $this->as($this->pupil);
        $this->click('.strip [data-leg="1"]');
        $this->until(fn (): bool => 'step' === $this->attribute('.strip [data-leg="1"]', 'aria-current'), 'he does not go back');
        $this->as($this->coach);
        $this->until(fn (): bool => 'step' === $this->attribute('.strip [data-leg="1"]', 'aria-current'), 'the coach does not follow');
    }

    /** A link on a phone, without an account: looked at, stepped, played; and gone when it is withdrawn. */
    public function testALinkIsLookedAtOnAPhoneWithoutAnAccount(): void
    {
        $this->as($this->coach);
        $this->register();
        $path = \dirname(__DIR__, 2).'/demo/3-last-two-rail.rack.json';
        $this->see('#file')->setFileDetector(new LocalFileDetector())->sendKeys($path);
        $this->click('.import .button');
        $this->see('[data-desk]');
        $sheet = (string) preg_replace('#/layout.*#', '', $this->browser->getCurrentURL());
        $this->browser->get("$sheet/run-out");
        $this->click('.ask .buttons .button');
        $this->see('.strip [data-leg="2"]');
        $this->click('.share-row a');
        $this->click('.share-ways .button');
        $link = $this->attribute('[data-select-all]', 'value');
        self::assertSame([], $this->violations());

        $this->as($this->pupil);
        $this->browser->get($link);
        $this->see('.strip [data-leg="1"][aria-current]');
        self::assertSame([], $this->violations());
        self::assertFalse(
            $this->browser->executeScript('return document.documentElement.scrollWidth > window.innerWidth'),
            'it is wider than the phone',
        );
        $this->tap('[data-step="1"]');
        $this->see('.strip [data-leg="2"][aria-current]');
        $this->tap('[data-play]');
        $this->see('[data-runout][data-played]');
        self::assertCount(0, $this->browser->findElements(WebDriverBy::cssSelector('.thread, form')));

        $this->as($this->coach);
        $this->click('.share-list .button');
        $this->until(fn (): bool => str_contains($this->text('.share-list'), 'withdrawn'), 'it is not withdrawn');
        $this->as($this->pupil);
        $this->browser->navigate()->refresh();
        self::assertSame('Not shown any more', $this->text('h1'));
    }

    /** The whole way: a worker lays the letter in the stand-in mailbox, and its link gives a new password. */
    public function testAForgottenPasswordComesByMail(): void
    {
        $this->as($this->coach);
        $email = 'lost-'.bin2hex(random_bytes(6)).'@example.org';
        $this->open('/register');
        $this->type('#registration_name', 'Ines');
        $this->type('#registration_email', $email);
        $this->type('#registration_password', 'eleven chars');
        $this->click('.card-form .button');
        $this->see('.list-page');
        $this->as($this->pupil);
        $this->open('/sign-in');
        $this->click('a[href="/forgot"]');
        $this->type('#email', $email);
        $this->click('.card-form .button');
        $this->see('[role=status]');
        $link = '';
        $this->until(static function () use ($email, &$link): bool {
            foreach (glob(\dirname(__DIR__, 2).'/var/mailbox/check/*.eml') ?: [] as $path) {
                $letter = quoted_printable_decode((string) file_get_contents($path));
                if (str_contains($letter, $email) && 1 === preg_match('#http\S+/reset/\S+#', $letter, $found)) {
                    $link = $found[0];
                }
            }

            return '' !== $link;
        }, 'no letter came');
        self::assertSame(getenv('TEST_URL').'/reset', \dirname($link));
        $this->browser->get($link);
        $this->type('#new', 'another long one');
        $this->click('.card-form .button');
        $this->see('#password');
        $this->type('[name=email]', $email);
        $this->type('#password', 'another long one');
        $this->click('form[action="/sign-in"] .button');
        $this->see('.list-page');
        // Where he was signed in with the old one, he is no more.
        $this->as($this->coach);
        $this->open('/sheets');
        $this->see('#password');
    }

    private function as(RemoteWebDriver $who): void
    {
        $this->browser = $who;
    }

    /** @return array{string, string} the code and the address of a group that the coach, who is new here, makes */
    private function grouped(): array
    {
        $this->as($this->coach);
        $this->register();
        $this->open('/groups');
        $this->type('[name=name]', 'Tuesday');
        $this->click('.inline-form .button');

        return [$this->text('.code'), $this->browser->getCurrentURL()];
    }
}
