<?php

declare(strict_types=1);

namespace ZigLane\App\Security;

use Psr\Cache\CacheItemPoolInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\RateLimiter\AbstractRequestRateLimiter;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\RateLimiter\LimiterInterface;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;
use Symfony\Component\Security\Http\Event\LoginSuccessEvent;
use Symfony\Component\Security\Http\SecurityRequestAttributes;

/**
 * How often a password may be wrong. One network at one account: five times a minute, ten in ten minutes, twenty an hour, so that the wait
 * grows. All networks together at one account: a hundred times an hour, but for networks from which its owner has signed in before, so
 * that nobody locks him out. One network at all accounts: 25 times a minute.
 */
final class SignInLimits extends AbstractRequestRateLimiter
{
    /** So long a network is known after its owner signed in from it, seconds. */
    private const KNOWN = 60 * 86400;

    public function __construct(
        private readonly RateLimiterFactoryInterface $signInNetworkLimiter,
        private readonly RateLimiterFactoryInterface $signInMinuteLimiter,
        private readonly RateLimiterFactoryInterface $signInTenMinutesLimiter,
        private readonly RateLimiterFactoryInterface $signInHourLimiter,
        private readonly RateLimiterFactoryInterface $signInAccountLimiter,
        #[Autowire(service: 'cache.rate_limiter')] private readonly CacheItemPoolInterface $known,
        #[Autowire('%kernel.secret%')] #[\SensitiveParameter] private readonly string $secret,
    ) {
    }

    /** Only what this network did at this account: neither the network nor the account is free by one success. */
    public function reset(Request $request): void
    {
        foreach ($this->ofBoth($request) as $limiter) {
            $limiter->reset();
        }
    }

    #[AsEventListener]
    public function remember(LoginSuccessEvent $event): void
    {
        $request = $event->getRequest();
        if ('' === self::account($request)) {
            return;
        }
        $item = $this->known->getItem($this->knownKey($request));
        $this->known->save($item->set(true)->expiresAfter(self::KNOWN));
    }

    protected function getLimiters(Request $request): array
    {
        $limiters = [$this->signInNetworkLimiter->create($this->key(Network::of($request))), ...$this->ofBoth($request)];
        if (!$this->known->hasItem($this->knownKey($request))) {
            $limiters[] = $this->signInAccountLimiter->create($this->key(self::account($request)));
        }

        return $limiters;
    }

    /** @return list<LimiterInterface> */
    private function ofBoth(Request $request): array
    {
        $key = $this->key(self::account($request)."\n".Network::of($request));

        return array_map(
            static fn (RateLimiterFactoryInterface $of): LimiterInterface => $of->create($key),
            [$this->signInMinuteLimiter, $this->signInTenMinutesLimiter, $this->signInHourLimiter],
        );
    }

    private static function account(Request $request): string
    {
        $name = $request->attributes->get(SecurityRequestAttributes::LAST_USERNAME, '');

        return \is_string($name) ? mb_strtolower(mb_scrub(trim($name))) : '';
    }

    private function knownKey(Request $request): string
    {
        return 'known-'.$this->key(self::account($request)."\n".Network::of($request));
    }

    private function key(string $of): string
    {
        return hash_hmac('sha256', $of, $this->secret);
    }
}
