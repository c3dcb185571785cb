<?php

declare(strict_types=1);

namespace ZigLane\App\Twig;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\Uid\Uuid;
use Twig\Attribute\AsTwigFunction;
use ZigLane\App\Entity\Account;
use ZigLane\App\Language\SpeedWords;
use ZigLane\App\Sheet\ErrorSource;
use ZigLane\App\Sheet\LayoutText;
use ZigLane\App\Words\Units;
use ZigLane\App\Words\Words;
use ZigLane\App\Work\GivenUp;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\Fault;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\RuleNotes;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Stroke\Caution;

/** What templates ask the words for. */
final readonly class WordsFunctions
{
    public function __construct(
        private Units $units,
        private Words $words,
        private ErrorSource $errors,
        private Security $security,
        private GivenUp $givenUp,
    ) {
    }

    #[AsTwigFunction('told')]
    public function told(Fact $fact): string
    {
        return $this->words->of($fact);
    }

    /** Why the work about something was given up; null where it was not. */
    #[AsTwigFunction('given_up')]
    public function givenUp(Uuid $about): ?string
    {
        $why = $this->givenUp->why($about);

        return null === $why ? null : $this->words->of($why);
    }

    /** @return list<Fact> what the rules say before a shot from a rack */
    #[AsTwigFunction('rule_notes')]
    public function notes(Rack $rack): array
    {
        return RuleNotes::of($rack);
    }

    /** What a stroke can hurt, and whether the room where this rack is played forbids it. */
    #[AsTwigFunction('caution_text')]
    public function caution(Caution $caution, Rack $rack): string
    {
        $text = $this->words->said('caution.'.$caution->value);

        return $rack->rules->forbids($caution) ? $text.' '.$this->words->said('caution.forbidden') : $text;
    }

    #[AsTwigFunction('length_text')]
    public function lengthText(float $metres, int $decimals = 0): string
    {
        return $this->units->length($metres, $decimals);
    }

    #[AsTwigFunction('speed_text')]
    public function speedText(float $mps): string
    {
        return $this->words->phrase($this->units->speed($mps));
    }

    #[AsTwigFunction('told_fault')]
    public function fault(Fault $fault): string
    {
        return $this->words->found($fault);
    }

    #[AsTwigFunction('spoken')]
    public function spoken(Ball|Rail $ball): string
    {
        return $this->words->spoken($ball);
    }

    /** Where a shot goes, as short as it can be said: its pocket, or that it is a safety. */
    #[AsTwigFunction('goal')]
    public function goal(ShotChoice $choice): string
    {
        return $choice->isSafety ? $this->words->said('decide.safe') : $choice->pocket->value;
    }

    #[AsTwigFunction('speed_words')]
    public function speed(float $lengths): string
    {
        return $this->words->phrase(SpeedWords::of($lengths));
    }

    /** A layout as lines that can be typed. */
    #[AsTwigFunction('layout_text')]
    public function layoutText(Rack $rack): string
    {
        return LayoutText::write($rack->layout, $rack->equipment->table);
    }

    /** Whose errors odds come from, for the player who looks at them. */
    #[AsTwigFunction('whose_errors')]
    public function whoseErrors(ExecutionErrors $player): string
    {
        $account = $this->security->getUser();

        return $account instanceof Account ? $this->words->of($this->errors->told($player, $account)) : '';
    }
}
