<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Symfony\Component\HttpFoundation\InputBag;
use Symfony\Component\HttpKernel\Exception\UnprocessableEntityHttpException;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Words\ConstraintText;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\Weights;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Shot\ShotChoice;

/** What a person asks of a plan, as the page speaks of it. */
final readonly class PlanRequest
{
    public const SECONDS = 15;
    /** Choices of the rules that are asked for with a plan. */
    private const ASKED = ['callsNine', 'tenLast'];

    /**
     * @param list<string>          $locked  balls whose legs stay as the sheet keeps them
     * @param array<string, string> $weights by field, points
     */
    public function __construct(
        public string $forbidden = '',
        public string $before = '',
        public array $locked = [],
        public bool $isOwn = false,
        public array $weights = [],
        public ?BallInHand $inHand = null,
        public ?Group $group = null,
        public int $seconds = self::SECONDS,
        public int $seed = 1,
        /** @var list<string> choices of the rules that differ from the world standard rules, as RuleOptions names them */
        public array $rules = [],
    ) {
    }

    /** @param InputBag<string> $input */
    public static function of(InputBag $input): self
    {
        $weights = [];
        foreach (array_keys(Weights::LIMITS) as $field) {
            $weights[$field] = trim($input->getString('weight_'.$field, '0'));
        }

        return new self(
            trim(mb_scrub($input->getString('forbidden'))),
            trim(mb_scrub($input->getString('before'))),
            preg_split('/[\s,]+/', $input->getString('locked'), -1, \PREG_SPLIT_NO_EMPTY) ?: [],
            $input->getBoolean('own'),
            $weights,
            BallInHand::tryFrom($input->getString('in_hand')),
            Group::tryFrom($input->getString('group')),
            max(2, min(120, $input->getInt('seconds', self::SECONDS))),
            max(1, min(0x7FFFFFFF, $input->getInt('seed', 1))),
            array_values(array_filter($input->all('rules'), is_string(...))),
        );
    }

    /**
     * What the last plan of the sheet was asked for, so that asking again keeps it; before the first, the weights that the player planned
     * with last.
     */
    public static function again(?PlanJob $job, Weights $weights): self
    {
        if (null === $job) {
            return new self(weights: array_map(strval(...), $weights->toArray()));
        }
        $constraints = $job->getConstraintNames();

        return new self(
            implode(', ', array_map(static fn (array $pair): string => implode(' ', $pair), $constraints['forbidden'])),
            implode(', ', array_map(static fn (array $pair): string => implode(' before ', $pair), $constraints['before'])),
            array_map(static fn (ShotChoice $leg): string => $leg->ball->label(), $job->getLegs()),
            weights: array_map(strval(...), $job->getWeights()->toArray()),
            group: $job->getRack()->group,
            rules: array_keys($job->getRack()->rules->chosen()),
        );
    }

    /** @throws UnprocessableEntityHttpException With a sentence if something was not understood */
    public function rack(Rack $rack): Rack
    {
        if (!$rack->layout->has(Ball::Cue)) {
            $rack = $rack->inHand($this->inHand ?? (BallInHand::None === $rack->ballInHand ? BallInHand::Anywhere : $rack->ballInHand));
        }
        if ([] === $rack->objectBalls()) {
            throw Refused::because('noObjectBall');
        }

        // What the page of the plan does not ask about is as on the sheet.
        $kept = array_diff(array_keys($rack->rules->chosen()), self::ASKED);
        $rack = $rack->withRules(RuleOptions::of([...$this->rules, ...array_values($kept)]));

        return null === $this->group ? $rack : $rack->withGroup($this->group);
    }

    /**
     * @return array{forbidden: list<array{string, string}>, before: list<array{string, string}>}
     *
     * @throws UnprocessableEntityHttpException
     */
    public function constraints(): array
    {
        return ['forbidden' => ConstraintText::forbidden($this->forbidden), 'before' => ConstraintText::before($this->before)];
    }

    /**
     * @return array<string, float>
     *
     * @throws UnprocessableEntityHttpException
     */
    public function weights(): array
    {
        $weights = [];
        foreach (Weights::LIMITS as $field => [$default, $least, $most]) {
            $weights[$field] = isset($this->weights[$field]) && '' !== $this->weights[$field]
                ? NumberText::between($this->weights[$field], 'The weight', $least, $most, ' points')
                : $default;
        }

        return $weights;
    }

    /** @return list<ShotChoice> the sheet's legs of the locked balls */
    public function locked(RackSheet $sheet): array
    {
        return array_values(array_filter(
            $sheet->getLegs(),
            fn (ShotChoice $leg): bool => \in_array($leg->ball->label(), $this->locked, true),
        ));
    }
}
