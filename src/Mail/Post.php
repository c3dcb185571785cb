<?php

declare(strict_types=1);

namespace ZigLane\App\Mail;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Symfony\Contracts\Translation\TranslatorInterface;
use Twig\Environment;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Invitation;
use ZigLane\App\Entity\Letter;
use ZigLane\App\Message\SendMail;

/**
 * Letters of the application. They are put in the queue and sent by a worker, which tries again where the mail server is away; what is in
 * them is in no log.
 */
final readonly class Post
{
    public function __construct(
        private MessageBusInterface $bus,
        private Environment $twig,
        private UrlGeneratorInterface $urls,
        private TranslatorInterface $translator,
        #[Autowire('%env(MAIL_FROM)%')]
        private string $from,
        #[Autowire('%env(SITE_URL)%')]
        private string $site,
    ) {
    }

    public function invite(Invitation $invitation): void
    {
        $this->send($invitation->getEmail(), 'invitation', [
            'coach' => $invitation->getGroup()->getCoach()->getName(), 'group' => $invitation->getGroup()->getName(),
            'ends' => $invitation->getEndsAt(), 'link' => $this->url('join_invited', ['token' => $invitation->getToken()]),
        ], $invitation->getGroup()->getCoach(), (string) $invitation->getId());
    }

    /** @param string $word the letter's own, which is kept nowhere */
    public function letter(Letter $letter, #[\SensitiveParameter] string $word): void
    {
        $routes = [Letter::RESET => 'reset', Letter::ADDRESS => 'address_confirm', Letter::UNDELETE => 'undelete', Letter::BACK => 'address_back'];
        $isToValue = \in_array($letter->getPurpose(), [Letter::ADDRESS, Letter::BACK], true);
        $to = $isToValue ? $letter->getValue() : $letter->getAccount()->getEmail();
        $this->send($to, Letter::BACK === $letter->getPurpose() ? 'moved' : $letter->getPurpose(), [
            'name' => $letter->getAccount()->getName(), 'link' => $this->url($routes[$letter->getPurpose()], ['word' => $word]),
        ], $letter->getAccount());
    }

    /** That something of the account was changed: to the address that it had. */
    public function tell(Account $account, string $email, string $what): void
    {
        $this->send($email, $what, ['name' => $account->getName()], $account);
    }

    /** @param array<string, mixed> $values */
    private function send(string $to, string $kind, array $values, Account $party, ?string $invitationId = null): void
    {
        // In the language that the one it is of has chosen, or reads now.
        $language = $party->getLanguage() ?: $this->translator->getLocale();
        $own = "mail/$kind.$language.txt.twig";
        $text = $this->twig->render($this->twig->getLoader()->exists($own) ? $own : "mail/$kind.txt.twig", $values);
        // The first line is the subject.
        [$subject, $body] = explode("\n", $text, 2);
        $this->bus->dispatch(new SendMail($this->from, $to, trim($subject), ltrim($body), (string) $party->getId(), $invitationId));
    }

    /** @param array<string, string> $values */
    private function url(string $route, array $values): string
    {
        // Never of the request: whoever asks for a letter could name a host of his own in it.
        return rtrim($this->site, '/').$this->urls->generate($route, $values, UrlGeneratorInterface::ABSOLUTE_PATH);
    }
}
