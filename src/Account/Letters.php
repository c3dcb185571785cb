<?php

declare(strict_types=1);

namespace ZigLane\App\Account;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Letter;
use ZigLane\App\Mail\Post;

/** Words that are sent by mail and do one thing once; kept only as hashes. A later one ends the earlier of the same purpose. */
final readonly class Letters
{
    /** How long each is good for. */
    private const GOOD = [
        Letter::RESET => '+1 hour', Letter::ADDRESS => '+1 day', Letter::UNDELETE => '+7 days', Letter::BACK => '+7 days',
    ];

    public function __construct(private EntityManagerInterface $manager, private ClockInterface $clock, private Post $post)
    {
    }

    public function send(Account $account, string $purpose, string $value = ''): void
    {
        // Of several addresses that an account had in a week each can take it back.
        if (Letter::BACK !== $purpose) {
            $this->end($account, $purpose);
        }
        $word = rtrim(strtr(base64_encode(random_bytes(32)), '+/', '-_'), '=');
        $letter = new Letter($account, $purpose, hash('sha256', $word), $value, $this->clock->now()->modify(self::GOOD[$purpose]));
        $this->manager->persist($letter);
        $this->manager->flush();
        $this->post->letter($letter, $word);
    }

    /** The letter that a word belongs to, while it is good; null for any other. */
    public function read(string $purpose, #[\SensitiveParameter] string $word): ?Letter
    {
        if (1 !== preg_match('/^[A-Za-z0-9_-]{43}$/D', $word)) {
            return null;
        }
        $letter = $this->manager->getRepository(Letter::class)->findOneBy(['hash' => hash('sha256', $word), 'purpose' => $purpose]);

        return true === $letter?->isOpen($this->clock->now()) ? $letter : null;
    }

    /** The letter that a word belongs to, used up by this; null where it is not or no longer good. */
    public function spend(string $purpose, #[\SensitiveParameter] string $word): ?Letter
    {
        $letter = $this->read($purpose, $word);

        return null !== $letter && $this->use($letter) ? $letter : null;
    }

    /** Whether it was still good: of two at once one uses it. */
    public function use(Letter $letter): bool
    {
        $isFirst = 1 === $this->manager->getConnection()->executeStatement(
            'UPDATE letter SET used_at = ? WHERE id = ? AND used_at IS NULL',
            [$this->clock->now()->format('Y-m-d H:i:s'), $letter->getId()->toBinary()],
        );
        if ($isFirst) {
            $letter->use($this->clock->now());
        }

        return $isFirst;
    }

    private function end(Account $account, string $purpose): void
    {
        $this->manager->getConnection()->executeStatement(
            'UPDATE letter SET used_at = ? WHERE account_id = ? AND purpose = ? AND used_at IS NULL',
            [$this->clock->now()->format('Y-m-d H:i:s'), $account->getId()->toBinary(), $purpose],
        );
    }
}
