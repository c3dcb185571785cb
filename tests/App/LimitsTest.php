<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Security\Http\SecurityRequestAttributes;
use ZigLane\App\Entity\Letter;
use ZigLane\App\Security\Network;
use ZigLane\App\Security\SignInLimits;

/** How often a password may be guessed, from where, and that the owner gets in all the same. */
final class LimitsTest extends AppTestCase
{
    #[DataProvider('addresses')]
    public function testANetworkIsWhatOneCustomerHas(string $address, string $network): void
    {
        self::assertSame($network, Network::of(self::from($address)));
    }

    /** @return iterable<string, array{string, string}> */
    public static function addresses(): iterable
    {
        yield 'IPv4' => ['203.0.113.7', '203.0.113.7'];
        yield 'IPv6' => ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2::/64'];
        yield 'another of the same' => ['2001:db8:1:2:ffff::1', '2001:db8:1:2::/64'];
        yield 'IPv4 within IPv6' => ['::ffff:203.0.113.7', '203.0.113.7'];
    }

    public function testAnAccountIsTriedAHundredTimesAnHourFromEverywhereAndItsOwnerGetsIn(): void
    {
        $email = $this->player()->getEmail();
        $limits = static::getContainer()->get(SignInLimits::class);
        // The owner has signed in from home before.
        $account = $this->manager()->getRepository(\ZigLane\App\Entity\Account::class)->findOneBy(['email' => $email]);
        self::assertNotNull($account);
        $account->setPassword(password_hash('right-and-long', \PASSWORD_BCRYPT, ['cost' => 4]));
        $this->manager()->flush();
        $this->client->setServerParameter('REMOTE_ADDR', '192.0.2.1');
        $this->client->request('GET', '/sign-in');
        $this->client->submitForm('Sign in', ['email' => $email, 'password' => 'right-and-long']);
        $this->client->followRedirect();
        self::assertSelectorExists('[action="/sign-out"]');

        $accepted = 0;
        for ($network = 0; $network < 240; ++$network) {
            $accepted += $limits->consume(self::from("10.0.$network.1", $email))->isAccepted() ? 1 : 0;
        }
        self::assertSame(100, $accepted);
        self::assertSame(0, $limits->peek(self::from('198.51.100.1', $email))->getRemainingTokens());
        self::assertTrue($limits->consume(self::from('192.0.2.1', $email))->isAccepted());
        self::assertTrue($limits->consume(self::from('198.51.100.1', 'another@example.org'))->isAccepted());
    }

    /** A network of IPv6 has one limit for all its addresses; a success with an account of one's own frees it of nothing. */
    public function testOneNetworkTriesTwentyFiveTimesAMinuteWhateverItsAddress(): void
    {
        $limits = static::getContainer()->get(SignInLimits::class);
        $accepted = 0;
        for ($i = 1; $i <= 60; ++$i) {
            $request = self::from("2001:db8:7:7::$i", "victim-$i@example.org");
            $accepted += $limits->consume($request)->isAccepted() ? 1 : 0;
            $limits->reset($request);
        }
        self::assertSame(25, $accepted);
    }

    /** The letter is written when the answer is on its way: an address that is known takes no longer than one that is not. */
    public function testWhoHasAnAccountIsNotLookedUpBeforeTheAnswer(): void
    {
        $email = $this->player()->getEmail();
        $letters = fn (): int => $this->manager()->getRepository(Letter::class)->count(['purpose' => Letter::RESET]);
        $before = $letters();
        $answered = [];
        $events = static::getContainer()->get('event_dispatcher');
        $events->addListener('kernel.response', static function () use (&$answered, $letters): void {
            $answered[] = $letters();
        });
        $page = $this->client->request('GET', '/forgot');
        $this->client->submit($page->filter('form')->last()->form(['email' => $email]));

        self::assertSame([$before, $before], $answered);
        self::assertSame($before + 1, $letters());
    }

    private static function from(string $address, string $email = ''): Request
    {
        $request = Request::create('/sign-in', 'POST', server: ['REMOTE_ADDR' => $address]);
        $request->attributes->set(SecurityRequestAttributes::LAST_USERNAME, $email);

        return $request;
    }
}
