<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use ZigLane\Core\Decide\Judged;
use ZigLane\Core\Decide\Options;
use ZigLane\Core\Decide\WayKind;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\OptionsFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\IndirectKind;
use ZigLane\Core\Shot\IndirectSearch;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;

/** The options of a position as they are looked at: one of them chosen and drawn, played again from the stroke of the file. */
final readonly class OptionsView
{
    /** Below this share of legal tries nothing is called a legal hit. */
    private const LEGAL = 0.05;

    public Options $options;
    public Judged $chosen;
    public int $number;
    /** Of the chosen option when nothing goes wrong; null where none is played, or these rules and this table no longer play it. */
    public ?SolvedShot $shot;

    /** @param int $number of the option, from 0 */
    public function __construct(public OptionsFile $file, int $number)
    {
        $this->options = $file->options;
        $this->number = max(0, min($number, \count($this->options->list) - 1));
        $this->chosen = $this->options->list[$this->number];
        $this->shot = $this->solved($this->chosen);
    }

    /** The rack with the cue ball where an option puts it; null: the chosen one. */
    public function rack(?Judged $judged = null): Rack
    {
        $place = ($judged ?? $this->chosen)->way->place;

        return null === $place ? $this->options->rack : $this->options->rack->withBall(Ball::Cue, $place);
    }

    /**
     * All that the tries of the chosen option came to.
     *
     * @return array<string, float|null> by what is counted: shares of the tries, null where it never came to that; the worth to either
     *                                   player ("made", "missed", "his") as chances to win, or balls
     */
    public function figures(): array
    {
        $tally = $this->chosen->tally;
        $isAttack = WayKind::Attack === $this->chosen->way->kind;
        $risks = [
            'scratches' => $tally->share($tally->scratches),
            'fouls' => $tally->share($tally->fouls - $tally->scratches),
            'sellsOut' => $tally->share($tally->soldOut),
            $isAttack ? 'drops' : 'aBallDrops' => $tally->share($tally->dropped),
            'loses' => $tally->share($tally->lost),
        ];
        if (!$isAttack) {
            return [
                'legal' => $tally->share($tally->legal),
                'hides' => $this->chosen->hook(),
                'hisPot' => $this->chosen->opponentPot(),
                'his' => $this->chosen->opponentWin(),
            ] + $risks;
        }
        [$made, $missed] = $tally->madeAndMissed();

        return [
            'pot' => $tally->share($tally->made),
            'position' => $tally->share($tally->position),
            'made' => $tally->made > 0 ? $made : null,
            'missed' => $tally->made < $tally->tries ? $missed : null,
            'missLeaves' => $this->chosen->missLeaves(),
            'his' => $this->chosen->opponentWin(),
        ] + $risks;
    }

    /** Which decision the best attack and the best safety come to. */
    public function decision(): Fact
    {
        $attack = $this->options->best(true);
        $even = $this->options->breakEven();

        return match (true) {
            null === $attack => new Fact('decide.onlySafeties'),
            null === $this->options->best(false) => new Fact('decide.onlyAttacks'),
            null === $even && $attack === $this->options->list[0] => new Fact('decide.always'),
            null === $even => new Fact('decide.never'),
            0.0 === $even => new Fact('decide.always'),
            default => new Fact('decide.breakEven', [
                'chanceShare' => $even,
                'makeShare' => $attack->tally->share($attack->tally->made),
            ]),
        };
    }

    /** @return list<Fact> what is to be known before */
    public function notes(): array
    {
        $legal = array_filter(
            $this->options->list,
            static fn (Judged $judged): bool => WayKind::Pass !== $judged->way->kind
                && $judged->tally->share($judged->tally->legal) >= self::LEGAL,
        );

        return [...$this->options->notes, ...([] === $legal ? [new Fact('decide.nothingLegal')] : [])];
    }

    /** Whether the worth of two options cannot be told apart: their intervals meet. */
    public function isAlike(Judged $judged): bool
    {
        return $judged !== $this->options->list[0]
            && $judged->tally->interval()[1] >= $this->options->list[0]->tally->interval()[0];
    }

    /** How a pot goes that is not straight; null of one that is, or of no pot. */
    public function indirect(Judged $judged): ?IndirectKind
    {
        $choice = $judged->way->choice;
        $shot = null === $choice?->direction || $choice->isSafety ? null : $this->solved($judged);

        return null === $shot ? null : IndirectSearch::wayOf($shot)?->kind;
    }

    private function solved(Judged $judged): ?SolvedShot
    {
        $choice = $judged->way->choice;
        try {
            return null === $choice
                ? null
                : (new ShotSolver($this->options->rack->equipment))->solve($this->rack($judged)->layout, $choice);
        } catch (CoreError) {
            return null;
        }
    }
}
