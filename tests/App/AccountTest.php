<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use ZigLane\App\Entity\Account;
use ZigLane\App\Form\ShownName;
use ZigLane\App\Repository\AccountRepository;

/** Getting in, and keeping others out. */
final class AccountTest extends AppTestCase
{
    public function testSomeoneNotSignedInIsAskedTo(): void
    {
        $this->client->request('GET', '/sheets');

        self::assertResponseRedirects('/sign-in');
    }

    public function testTheDemoButtonSignsInAndShowsRacks(): void
    {
        $this->client->followRedirects();
        $this->client->request('GET', '/sign-in');
        $this->client->submitForm('Look round as the demo player');

        self::assertResponseIsSuccessful();
        self::assertSelectorTextContains('.sheets', 'Thursday rack, six left');
        self::assertSelectorExists('.sheet svg.lane-table');
    }

    /** A name of nothing that can be seen, or one that turns what stands beside it, is nobody's. */
    public function testANameCanBeSeen(): void
    {
        foreach (["\u{200B}\u{200B}", "\u{3164}", "Ann\u{202E}a", "\u{00AD}", "\u{2800}\u{2800}"] as $name) {
            self::assertFalse(ShownName::isOne($name), bin2hex($name));
            $this->register($name, 'seen-'.bin2hex(random_bytes(6)).'@example.org', 'eleven chars');
            self::assertResponseStatusCodeSame(422);
        }
        foreach (['Zoë', '李', 'O’Neill', '🎱', 'דנה'] as $name) {
            self::assertTrue(ShownName::isOne($name), $name);
        }
    }

    public function testTheDemoNeedsItsForm(): void
    {
        $this->client->request('POST', '/demo');

        self::assertResponseStatusCodeSame(403);
    }

    public function testANewPlayerRegistersAndSignsInAgain(): void
    {
        $email = 'Nora-'.bin2hex(random_bytes(6)).'@example.org';
        $this->client->followRedirects();
        $this->register('Nora', $email, 'eleven chars');
        self::assertSelectorTextContains('h1', 'Rack sheets');

        $account = $this->manager()->getRepository(Account::class)->findOneBy(['email' => strtolower($email)]);
        self::assertNotNull($account);
        self::assertStringNotContainsString('eleven', $account->getPassword());
        self::assertTrue(password_verify('eleven chars', $account->getPassword()));

        $this->client->submitForm('Sign out');
        self::assertSelectorTextContains('h1', 'Sign in');
        $this->client->submitForm('Sign in', ['email' => strtoupper($email), 'password' => 'eleven chars']);
        self::assertSelectorTextContains('h1', 'Rack sheets');
    }

    public function testWhatIsWrongWithARegistrationIsSaid(): void
    {
        $this->register('', 'no address', 'short');

        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Your name is needed.', $this->text());
        self::assertStringContainsString('This is not an e-mail address.', $this->text());
        self::assertStringContainsString('A password needs at least 10 characters.', $this->text());
    }

    public function testAnAddressInUseIsNotTakenTwice(): void
    {
        $account = $this->player();
        $this->register('Other', $account->getEmail(), 'eleven chars');

        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('An account with this address cannot be made.', $this->text());
    }

    public function testAWrongPasswordIsToldAndTriesAreLimited(): void
    {
        $email = $this->player()->getEmail();
        for ($try = 1; $try <= 6; ++$try) {
            $this->client->request('GET', '/sign-in');
            $this->client->submitForm('Sign in', ['email' => $email, 'password' => 'guess-'.$try]);
            $this->client->followRedirect();
            self::assertStringContainsString(
                $try < 6 ? 'The address or the password is wrong.' : 'Too many failed login attempts',
                $this->text(),
                "try $try",
            );
        }
        // Nothing of the tries is in the log.
        $log = self::logged();
        self::assertStringNotContainsString('guess-', $log);
    }

    public function testEveryAnswerCarriesItsHeaders(): void
    {
        $this->client->request('GET', '/sign-in');
        $headers = $this->client->getResponse()->headers;

        self::assertStringContainsString("default-src 'self'", (string) $headers->get('Content-Security-Policy'));
        self::assertStringNotContainsString('unsafe', (string) $headers->get('Content-Security-Policy'));
        self::assertSame('nosniff', $headers->get('X-Content-Type-Options'));
        self::assertSame('DENY', $headers->get('X-Frame-Options'));
        self::assertStringContainsString('no-store', (string) $headers->get('Cache-Control'));
    }

    public function testNoPageNamesAnOutsideAddress(): void
    {
        $sheet = $this->sheet($this->signedIn());
        foreach (['/sheets', '/sheets/new', "/sheets/{$sheet->getId()}/layout", "/sheets/{$sheet->getId()}/plan"] as $path) {
            $this->client->request('GET', $path);
            self::assertResponseIsSuccessful();
            preg_match_all('~(?:src|href|action)="(?:https?:)?//[^"]*"~', (string) $this->client->getResponse()->getContent(), $found);
            self::assertSame([], $found[0]);
        }
    }

    public function testAPasswordIsChangedByWhoKnowsIt(): void
    {
        $email = bin2hex(random_bytes(6)).'@example.org';
        $this->register('Nora', $email, 'eleven chars');
        foreach ([['wrong one', 'quite another one', 'not your password'], ['eleven chars', 'short', 'at least 10'],
            ['eleven chars', 'aaaaaaaaaaaa', 'too easy to guess']] as [$current, $new, $told]) {
            $this->client->request('GET', '/password');
            $this->client->submitForm('Change it', ['current' => $current, 'new' => $new]);
            self::assertResponseStatusCodeSame(422);
            self::assertStringContainsString($told, $this->text());
        }
        $this->client->request('GET', '/password');
        $this->client->submitForm('Change it', ['current' => 'eleven chars', 'new' => 'quite another one']);
        self::assertResponseRedirects('/account');
        $account = static::getContainer()->get(AccountRepository::class)->byEmail($email);
        self::assertTrue(password_verify('quite another one', $account?->getPassword() ?? ''));
        // Without the page's own token nothing changes.
        $this->client->request('POST', '/password', ['current' => 'quite another one', 'new' => 'and yet another one']);
        self::assertResponseStatusCodeSame(403);
    }

    private function register(string $name, string $email, string $password): void
    {
        $this->client->request('GET', '/register');
        $this->client->submitForm(
            'Make the account',
            ['registration[name]' => $name, 'registration[email]' => $email, 'registration[password]' => $password],
        );
    }

    /** The unit of the tip's offset is kept with the account and used on every page; a typed unit always wins. */
    public function testTheTipIsCountedInThePlayersOwnUnit(): void
    {
        $account = $this->signedIn();
        $sheet = $this->sheet($account);
        $path = "/sheets/{$sheet->getId()}/plan";
        $this->client->request('GET', $path);
        $this->client->submit($this->client->getCrawler()->filter('.preferences')->form(['tip_unit' => 'mm']));
        self::assertResponseRedirects($path);
        $this->client->request('GET', $path);
        self::assertSame('mm', $this->client->getCrawler()->filter('[name="unit"]')->attr('value'));

        $side = fn (array $typed): string => $this->client->request(
            'GET',
            $path.'/draw',
            $typed + ['ball' => '4', 'pocket' => 'FL', 'clock' => '3:00', 'lengths' => '2', 'elevation' => '1'],
        )->filter('[data-tip]')->text();
        self::assertSame('0.83 tips, 28 % R, 8 mm', $side(['tips' => '8', 'unit' => 'mm']));
        self::assertSame('0.83 tips, 28 % R, 8 mm', $side(['tips' => '28 %', 'unit' => 'mm']));
        self::assertSame('0.83 tips, 28 % R, 8 mm', $side(['tips' => '0.825 tips', 'unit' => 'percent']));
        self::assertSame('0.83 tips, 28 % R, 8 mm', $side(['tips' => '0.825']));
    }

    public function testPreferencesNeedTheirFormAndLeadNowhereElse(): void
    {
        $this->signedIn();
        $this->client->request('POST', '/preferences', ['tip_unit' => 'mm']);
        self::assertResponseStatusCodeSame(403);

        foreach (['//example.org/x', 'https://example.org', '/\\example.org', ''] as $back) {
            $this->client->request('GET', '/sheets');
            $form = $this->client->getCrawler()->filter('.preferences')->form(['tip_unit' => 'percent']);
            $form->setValues(['back' => $back]);
            $this->client->submit($form);
            self::assertResponseRedirects('/sheets');
        }
    }
}
