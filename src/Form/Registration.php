<?php

declare(strict_types=1);

namespace ZigLane\App\Form;

use Symfony\Component\Validator\Constraints as Assert;
use Symfony\Component\Validator\Context\ExecutionContextInterface;

/** What a new player fills in. */
final class Registration
{
    #[Assert\NotBlank(message: 'Your name is needed.')]
    #[Assert\Length(max: 80, maxMessage: 'A name has at most {{ limit }} characters.')]
    #[Assert\Callback([self::class, 'isShown'])]
    public string $name = '';

    #[Assert\NotBlank(message: 'An e-mail address is needed to sign in.')]
    #[Assert\Email(message: 'This is not an e-mail address.')]
    #[Assert\Regex('/@zig-lane\.invalid$/i', match: false, message: 'This is not an e-mail address.')]
    #[Assert\Length(max: 180, maxMessage: 'An address has at most {{ limit }} characters.')]
    public string $email = '';

    #[Assert\Length(
        min: 10,
        max: 200,
        minMessage: 'A password needs at least {{ limit }} characters.',
        maxMessage: 'A password has at most {{ limit }} characters.',
    )]
    #[Assert\PasswordStrength(
        minScore: Assert\PasswordStrength::STRENGTH_WEAK,
        message: 'This password is too easy to guess. Take a longer one, or words that do not go together.',
    )]
    public string $password = '';

    public static function isShown(string $name, ExecutionContextInterface $context): void
    {
        if ('' !== $name && !ShownName::isOne($name)) {
            $context->addViolation('A name needs characters that can be seen, and none that turn the direction of others.');
        }
    }
}
