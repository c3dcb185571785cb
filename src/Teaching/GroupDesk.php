<?php

declare(strict_types=1);

namespace ZigLane\App\Teaching;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Invitation;
use ZigLane\App\Entity\Membership;
use ZigLane\App\Entity\TeachingGroup;
use ZigLane\App\Mail\Post;
use ZigLane\App\Repository\Groups;
use ZigLane\App\Words\Refused;

/** Groups: made, joined by a code or a letter, left whenever a pupil wants. */
final readonly class GroupDesk
{
    public const MAX_NAME = 80;
    private const MOST = 50;
    private const MOST_PUPILS = 200;
    private const MOST_INVITED = 100;

    public function __construct(
        private Groups $groups,
        private EntityManagerInterface $manager,
        private ClockInterface $clock,
        private Post $post,
    ) {
    }

    public function make(Account $coach, string $name): TeachingGroup
    {
        $name = trim(mb_scrub($name));
        if ('' === $name || mb_strlen($name) > self::MAX_NAME) {
            throw Refused::because('groupName', ['most' => self::MAX_NAME]);
        }
        if (\count($this->groups->of($coach)) >= self::MOST) {
            throw Refused::because('tooManyGroups', ['most' => self::MOST]);
        }
        $group = new TeachingGroup($coach, $name, $this->clock->now());
        $coach->coach();
        $this->manager->persist($group);
        $this->manager->flush();

        return $group;
    }

    /** An invitation lets one in: of several who come with it at the same moment the first. */
    private function spend(?Invitation $by): void
    {
        $now = $this->clock->now();
        if (null !== $by && 1 !== (int) $this->manager->getConnection()->executeStatement(
            'UPDATE invitation SET used_at = ? WHERE id = ? AND used_at IS NULL',
            [$now->format('Y-m-d H:i:s'), $by->getId()->toBinary()],
        )) {
            throw Refused::because('noSuchGroup');
        }
        $by?->use($now);
    }

    /** @param array<string, bool> $sees what the coach is let see (Membership::SIGHTS) */
    public function join(TeachingGroup $group, Account $pupil, array $sees, ?Invitation $by = null): Membership
    {
        if ($group->isClosed()) {
            throw Refused::because('noSuchGroup');
        }
        if ($group->getCoach() === $pupil) {
            throw Refused::because('ownGroup');
        }
        $membership = $this->groups->membership($group, $pupil);
        if (true !== $membership?->isThere() && \count($this->groups->pupils($group)) >= self::MOST_PUPILS) {
            throw Refused::because('groupFull', ['most' => self::MOST_PUPILS]);
        }
        if (null === $membership) {
            $membership = new Membership($group, $pupil, $sees, $this->clock->now());
            $this->manager->persist($membership);
        } else {
            $membership->comeBack($sees, $this->clock->now());
        }
        $this->spend($by);
        try {
            $this->manager->flush();
        } catch (UniqueConstraintViolationException) {
            // Joined twice in the same moment: he is in it.
            throw Refused::because('alreadyIn');
        }

        return $membership;
    }

    public function leave(Membership $membership): void
    {
        $membership->leave($this->clock->now());
        $this->manager->flush();
    }

    /** @param array<string, bool> $sees */
    public function letSee(Membership $membership, array $sees): void
    {
        $membership->letSee($sees);
        $this->manager->flush();
    }

    public function changeCode(TeachingGroup $group): void
    {
        $group->changeCode();
        $this->manager->flush();
    }

    public function close(TeachingGroup $group): void
    {
        $group->close($this->clock->now());
        $this->manager->flush();
    }

    /** A letter with a link; it is sent by a worker, again and again where the mail server is away. */
    public function invite(TeachingGroup $group, string $email): Invitation
    {
        $email = mb_strtolower(trim($email));
        if (false === filter_var($email, \FILTER_VALIDATE_EMAIL) || \strlen($email) > 180) {
            throw Refused::because('address');
        }
        if (\count($this->groups->invitations($group, $this->clock->now())) >= self::MOST_INVITED) {
            throw Refused::because('tooManyInvited', ['most' => self::MOST_INVITED]);
        }
        $invitation = new Invitation($group, $email, $this->clock->now());
        $this->manager->persist($invitation);
        $this->manager->flush();
        $this->post->invite($invitation);

        return $invitation;
    }
}
