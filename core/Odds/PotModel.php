<?php

declare(strict_types=1);

namespace ZigLane\Core\Odds;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Math\Normal;
use ZigLane\Core\Motion\BallContact;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Angle;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Side;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Bridge;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\PocketGeometry;
use ZigLane\Core\Table\Spot;

/**
 * One ball to one pocket, and the chance of that pot from any cue ball spot, fast enough for thousands of spots.
 *
 * What the pocket accepts is found by simulation once: the directions of the object ball, among all other balls, from which it
 * drops. The chance from a spot is then that of a normal error of the object ball's direction falling between the edges. That
 * error comes from the player's errors of aim, tip and speed by the contact of two balls: a cue ball that comes rolling, played
 * with the usual stroke (`stroke()`). Cue ball spots that other balls shut off, or leave too narrow a way, lose by exact geometry.
 *
 * It knows one stroke only, no scratch and no second ball on the way; the trials of a shot (Trials) know them.
 */
final readonly class PotModel
{
    /** Speed of a rolling cue ball where it meets the object ball, m/s: medium. */
    public const SPEED = 1.5;
    /** But fast enough for the object ball to come to the pocket with this speed, m/s. */
    private const ARRIVAL = 0.5;
    private const FASTEST = 6.0;

    /** Share of the speed that is planned for a ball with which it still drops, a little late. */
    private const ENOUGH = 0.85;
    /** Speeds of the object ball, m/s, for which it is found what the pocket accepts; the slowest takes the widest angle. */
    private const SPEEDS = [0.8, 1.1, 1.45, 2.2, 3.5];
    /** Nearer to a rail than this a ball may run along it, and the cue ball meet the rail first, metres. */
    private const BESIDE = 0.02;
    /** Cuts from which such a pot is simulated, degrees to the left, and from how far away: the first that is on the bed. */
    private const CUTS = [-70, -55, -40, -25, -10, 10, 25, 40, 55, 70];
    private const FEW_CUTS = [-55, -20, 20, 55];
    private const AWAY = [0.5, 0.3, 0.8];
    /** Chances below this are not corrected. */
    private const SURE = 0.05;
    /** Rounds in which the offset is corrected for throw. */
    private const ROUNDS = 3;
    /** Directions that are tried to either side of the middle, up to twice the half of the mouth; and where a coarse look is enough. */
    private const SAMPLES = 16;
    private const FEW = 8;
    /** Tip height of the usual stroke, as a fraction of the radius: half way to natural roll, so that it soon rolls. */
    public const HEIGHT = 0.2;
    private const ELEVATION = 2.0;
    /** How far off a rail's nose the cue ball is aimed to meet a ball that lies beside it, metres. */
    private const OFF_RAIL = 0.0003;

    /** Where the cue ball's centre must be at contact. */
    public Spot $ghost;

    /** The line that is aimed for, radians to the left of that to the middle of the mouth. */
    private float $aside;

    /** Speed with which the object ball must start to come to the pocket, m/s. */
    private float $needed;

    /** One standard deviation of the tip sideways, as a fraction of the radius, and its squirt, radians. */
    private float $tip;
    private float $squirt;

    /** Factor of all errors for the elevation of the usual stroke. */
    private float $raised;

    /**
     * @param float                                     $line     direction of the object ball to the middle of the mouth, radians
     * @param non-empty-list<list<array{float, float}>> $accepted what the pocket accepts at each of SPEEDS: from and to, radians to the
     *                                                            left of that line
     * @param list<array{float, float}>                 $byRail   beside a rail: cuts, radians, and by how much the chance is wrong there
     */
    private function __construct(
        public Layout $layout,
        public Ball $ball,
        public Pocket $pocket,
        public float $line,
        public array $accepted,
        private Equipment $equipment,
        private ExecutionErrors $errors,
        private BallContact $contact,
        private Sight $sight,
        private array $byRail = [],
    ) {
        $object = $layout->spot($ball);
        $this->aside = self::onBed(self::aimed($accepted), $object, $line, $accepted, $equipment);
        $this->ghost = $object->towards($line + $this->aside + \M_PI, $equipment->balls->diameter());
        $this->needed = 7 / 5 * \sqrt(
            self::ARRIVAL ** 2 + $this->drag() * $object->distanceTo($equipment->geometry->at($pocket)->target($object)),
        );
        $this->tip = 0.001 * $errors->tipSide / $equipment->balls->radius;
        $this->raised = $errors->growth->byElevation(self::ELEVATION);
        $this->squirt = Strike::degrees(0.0, 1.0, min($this->tip, Cue::MISCUE_LIMIT), 0.0, 0.0, $equipment->cue->endMassRatio)->squirt();
    }

    /**
     * The pot of a ball on this layout, whose cue ball does not count; null where the ball cannot be sent into the pocket straight.
     *
     * @param bool $isCoarse half the directions are tried, at every other speed, and fewer cuts beside a rail, in a third of the time:
     *                       pieces of a pocket's mouth that are narrower than an eighth of it may be missed
     */
    public static function find(
        Layout $layout,
        Ball $ball,
        Pocket $pocket,
        ShotSolver $solver,
        ExecutionErrors $errors,
        bool $isCoarse = false,
    ): ?self {
        $object = $layout->spot($ball);
        $equipment = $solver->equipment;
        $geometry = $equipment->geometry->at($pocket);
        $layout = $layout->without(Ball::Cue);
        $line = $object->directionTo($geometry->target($object));
        $half = self::halfMouth($geometry, $object);
        $rollouts = $solver->simulator->rolloutsOf($layout, $ball);
        $samples = $isCoarse ? self::FEW : self::SAMPLES;
        $at = static fn (float $speed): array => self::accepted($half, $samples, static fn (float $turn): bool => $rollouts->drops(
            // Sliding without spin, as it leaves the contact.
            [$speed * cos($line + $turn), $speed * sin($line + $turn), 0.0, 0.0, 0.0],
            $pocket,
        ));
        $slowest = $at(self::SPEEDS[0]);
        // What does not go slowly does not go at all.
        if ([] === $slowest) {
            return null;
        }
        if ($isCoarse) {
            [$middle, $fastest] = [$at(self::SPEEDS[2]), $at(self::SPEEDS[4])];
            $accepted = [$slowest, self::mixed($slowest, $middle, 0.5), $middle, self::mixed($middle, $fastest, 0.5), $fastest];
        } else {
            $accepted = [$slowest, ...array_map($at, \array_slice(self::SPEEDS, 1))];
        }
        $model = new self(
            $layout, $ball, $pocket, $line, $accepted, $equipment, $errors,
            new BallContact($equipment->balls), new Sight($equipment->balls),
        );

        return self::isBesideRail($object, $equipment) ? $model->besideRail($solver, $isCoarse ? self::FEW_CUTS : self::CUTS) : $model;
    }

    private static function isBesideRail(Spot $object, Equipment $equipment): bool
    {
        return $equipment->table->beyond($object->x, $object->y, $equipment->balls->radius) > -self::BESIDE;
    }

    /**
     * Beside a rail the cue ball may meet that first, and the ball run along it: what the contact alone says is held against the whole
     * simulation from a few spots, and corrected by the cut.
     *
     * @param list<int> $cuts degrees to the left, the least first
     */
    private function besideRail(ShotSolver $solver, array $cuts): self
    {
        $byRail = [];
        $alone = Layout::empty()->with($this->ball, $this->layout->spot($this->ball));
        foreach ($cuts as $degrees) {
            foreach (self::AWAY as $away) {
                $spot = $this->ghost->towards($this->aimedLine() - deg2rad($degrees) + \M_PI, $away);
                if ($this->equipment->table->beyond($spot->x, $spot->y, $this->equipment->balls->radius) > 0.0) {
                    continue;
                }
                $fast = $this->chance($spot);
                $real = $fast < self::SURE ? null : $this->simulated($alone->with(Ball::Cue, $spot), $solver);
                if (null !== $real) {
                    $byRail[] = [deg2rad($degrees), $real / $fast];
                }
                break;
            }
        }

        return [] === $byRail ? $this : new self(
            $this->layout, $this->ball, $this->pocket, $this->line, $this->accepted, $this->equipment, $this->errors, $this->contact,
            $this->sight, $byRail,
        );
    }

    private function simulated(Layout $layout, ShotSolver $solver): ?float
    {
        $spot = $layout->spot(Ball::Cue);
        $choice = new ShotChoice($this->ball, $this->pocket, $this->stroke($spot), $this->asideMetres());
        try {
            $shot = $solver->aimed($layout, $choice);
        } catch (CoreError) {
            return null;
        }
        $errors = $this->errors->in($shot->strike, ShotDemands::ofAimed($layout, $shot, $this->equipment));

        return QuickChance::of($choice, $shot->strike, $solver->simulator->rollouts($layout), $this->equipment->balls, $errors);
    }

    /** What the simulation makes of the chance of a ball beside a rail, between the cuts that were tried. */
    private function corrected(float $chance, float $cut): float
    {
        $last = null;
        foreach ($this->byRail as [$at, $share]) {
            if ($cut <= $at) {
                return min(
                    1.0,
                    $chance * (null === $last ? $share : $last[1] + ($cut - $last[0]) / ($at - $last[0]) * ($share - $last[1])),
                );
            }
            $last = [$at, $share];
        }

        return null === $last ? $chance : min(1.0, $chance * $last[1]);
    }

    /**
     * The pots of a ball over some pockets; those that it cannot be sent into straight are left out.
     *
     * @param list<Pocket> $pockets
     *
     * @return list<self>
     */
    public static function findAll(Layout $layout, Ball $ball, array $pockets, ShotSolver $solver, ExecutionErrors $errors): array
    {
        return array_values(array_filter(array_map(
            static fn (Pocket $pocket): ?self => self::find($layout, $ball, $pocket, $solver, $errors),
            $pockets,
        )));
    }

    /**
     * The directions from which the ball drops, in pieces: rail first, more than the mouth may be open, and not all in one.
     *
     * @param float                 $half  angle of half the mouth, radians
     * @param \Closure(float): bool $drops
     *
     * @return list<array{float, float}>
     */
    private static function accepted(float $half, int $samples, \Closure $drops): array
    {
        $edge = static function (float $in, float $out) use ($drops): float {
            for ($round = 0; $round < 5; ++$round) {
                $middle = 0.5 * ($in + $out);
                $drops($middle) ? $in = $middle : $out = $middle;
            }

            return 0.5 * ($in + $out);
        };
        $accepted = [];
        $from = null;
        $last = -2 * $half;
        for ($i = -$samples; $i <= $samples; ++$i) {
            $turn = 2 * $half * $i / $samples;
            $in = $drops($turn);
            if ($in && null === $from) {
                $from = $i > -$samples ? $edge($turn, $last) : $turn;
            } elseif (!$in && null !== $from) {
                $accepted[] = [$from, $edge($last, $turn)];
                $from = null;
            }
            $last = $turn;
        }
        if (null !== $from) {
            $accepted[] = [$from, $last];
        }

        return $accepted;
    }

    /** The angle that half of a pocket's mouth takes up seen from a ball, radians. */
    private static function halfMouth(PocketGeometry $pocket, Spot $object): float
    {
        return atan2(0.5 * $pocket->noseA->distanceTo($pocket->noseB), $object->distanceTo($pocket->target($object)));
    }

    /** Whether the cue ball can lie where it has to meet the ball: not beyond a nose line, but for half a millimetre that it gives. */
    public function isOnBed(): bool
    {
        return $this->equipment->table->beyond($this->ghost->x, $this->ghost->y, $this->equipment->balls->radius) < 0.0005;
    }

    /** Metres. */
    public function ballDiameter(): float
    {
        return $this->equipment->balls->diameter();
    }

    /** Direction in which the ball is to go, radians. */
    public function aimedLine(): float
    {
        return $this->line + $this->aside;
    }

    /** The side of the pocket that the ball is sent to, as ShotChoice has it, metres to the left of the middle. */
    public function asideMetres(): float
    {
        $object = $this->layout->spot($this->ball);
        $far = $object->distanceTo($this->equipment->geometry->at($this->pocket)->target($object));

        return max(-ShotChoice::MOST_ASIDE, min(ShotChoice::MOST_ASIDE, $far * tan($this->aside)));
    }

    /** How much of the pocket is open to the ball: the accepted angle over what the mouth alone would be, at most 1. */
    public function openShare(): float
    {
        $free = 2 * self::halfMouth($this->equipment->geometry->at($this->pocket), $this->layout->spot($this->ball));

        return min(1.0, array_sum(array_map(static fn (array $piece): float => $piece[1] - $piece[0], $this->accepted[1])) / $free);
    }

    /** Seen from the ball, where it goes to one side of the pocket only. */
    public function openSide(): ?Side
    {
        $edges = array_merge(...$this->accepted[1]);
        if ([] === $edges) {
            return null;
        }

        return min($edges) > 0.0 ? Side::Left : (max($edges) < 0.0 ? Side::Right : null);
    }

    /** The usual stroke from a spot: medium speed, more where the cut or the way to the pocket needs it, a little above the centre. */
    public function stroke(Spot $cue): Stroke
    {
        return new Stroke(Tip::fractions(0.0, self::HEIGHT), $this->speed($cue), self::ELEVATION);
    }

    /** Speed of that stroke, m/s. */
    private function speed(Spot $cue): float
    {
        $cut = abs(Angle::wrapped($this->line - $cue->directionTo($this->ghost)));
        $contact = min(
            self::FASTEST,
            max(self::SPEED, $this->needed / ($this->equipment->balls->passedOn() * max(cos($cut), 0.05))),
        );

        return self::startFor($contact, $cue->distanceTo($this->ghost), $this->drag());
    }

    /** What rolling takes off the square of a speed over a metre, m/s^2. */
    private function drag(): float
    {
        return 2 * $this->equipment->table->roll * $this->equipment->table->gravity;
    }

    /** What is left of the speed once the usual stroke rolls: 5/7, and 2/7 of what its spin would roll. */
    private static function rollingShare(): float
    {
        return 5 / 7 + 2 / 7 * 2.5 * self::HEIGHT;
    }

    /**
     * Speed of the usual stroke just after the hit that comes rolling at a speed, m/s, over a distance.
     *
     * @param float $drag what rolling takes off the square of the speed over a metre, m/s^2
     */
    public static function startFor(float $contact, float $distance, float $drag): float
    {
        return \sqrt($contact ** 2 + $drag * $distance) / self::rollingShare();
    }

    /** The shot of the usual stroke from a spot. */
    public function choice(Spot $cue): ShotChoice
    {
        return new ShotChoice($this->ball, $this->pocket, $this->stroke($cue), $this->asideMetres());
    }

    /**
     * The line that is aimed for, against that to the middle of the mouth: this one where the pocket takes it, else the middle of the
     * widest piece.
     *
     * @param non-empty-list<list<array{float, float}>> $accepted
     */
    private static function aimed(array $accepted): float
    {
        $widest = [0.0, 0.0];
        foreach (array_merge(...array_reverse($accepted)) as $piece) {
            if ($piece[0] < 0.0 && $piece[1] > 0.0) {
                return 0.0;
            }
            if ($piece[1] - $piece[0] > $widest[1] - $widest[0]) {
                $widest = $piece;
            }
        }

        return 0.5 * ($widest[0] + $widest[1]);
    }

    /**
     * The aim turned as far as a rail forces it: the cue ball cannot lie past a nose line when it meets a ball beside it. As it was where
     * the pocket does not take what is left.
     *
     * @param non-empty-list<list<array{float, float}>> $accepted
     */
    private static function onBed(float $aside, Spot $object, float $line, array $accepted, Equipment $equipment): float
    {
        [$table, $balls] = [$equipment->table, $equipment->balls];
        $reach = $balls->diameter();
        $isOn = static function (float $aside) use ($object, $line, $table, $balls, $reach): bool {
            $ghost = $object->towards($line + $aside + \M_PI, $reach);

            return $table->beyond($ghost->x, $ghost->y, $balls->radius) <= 0.0;
        };
        if ($isOn($aside)) {
            return $aside;
        }
        // Directions of the ball with which the ghost ball lies just off a long or a short rail.
        $turned = [];
        $room = $balls->radius + self::OFF_RAIL;
        foreach ([$object->y - $room, $object->y + $room - $table->width()] as $far) {
            $angle = asin(max(-1.0, min(1.0, $far / $reach)));
            array_push($turned, $angle, \M_PI - $angle);
        }
        foreach ([$object->x - $room, $object->x + $room - $table->length] as $far) {
            $angle = acos(max(-1.0, min(1.0, $far / $reach)));
            array_push($turned, $angle, -$angle);
        }
        $best = null;
        foreach ($turned as $direction) {
            $other = Angle::wrapped($direction - $line);
            $isTaken = [] !== array_filter(
                array_merge(...$accepted),
                static fn (array $piece): bool => $piece[0] < $other && $piece[1] > $other,
            );
            if ($isTaken && $isOn($other) && (null === $best || abs($other - $aside) < abs($best - $aside))) {
                $best = $other;
            }
        }

        return $best ?? $aside;
    }

    /** Chance of the pot from a cue ball spot with the usual stroke, 0 to 1. */
    public function chance(Spot $cue): float
    {
        return $this->chanceStarting($cue, $this->speed($cue));
    }

    /**
     * Chance of the pot from a spot with a cue ball that comes rolling at a speed, m/s, 0 to 1; 0 where the object ball would not
     * reach the pocket.
     */
    public function chanceAt(Spot $cue, float $contact): float
    {
        $cut = abs(Angle::wrapped($this->line - $cue->directionTo($this->ghost)));
        if ($this->equipment->balls->passedOn() * $contact * max(cos($cut), 0.0) < self::ENOUGH * $this->needed) {
            return 0.0;
        }

        return $this->chanceStarting($cue, self::startFor($contact, $cue->distanceTo($this->ghost), $this->drag()));
    }

    /** Chance of the pot from a spot with a stroke of a speed, 0 to 1: that of the cue ball just after the hit, m/s. */
    public function chanceStarting(Spot $cue, float $start): float
    {
        $reach = $this->equipment->balls->diameter();
        $ghost = $this->ghost;
        $distance = max($cue->distanceTo($ghost), 1e-6);
        $aim = $cue->directionTo($ghost);
        $cut = Angle::wrapped($this->aimedLine() - $aim);
        if (abs($cut) > 1.4 || $cue->distanceTo($this->layout->spot($this->ball)) < $reach) {
            return 0.0;
        }
        [$speed, $roll, $slide] = $this->arrival($start, $distance);
        [$byAim, $growth] = $this->grown($cue, $aim, $cut, $start);
        // The tip turns the cue ball's line by squirt, away from its side, less what the raised cue bends back until the ball rolls; its
        // side then throws the object ball back.
        $tip = $this->tip * $growth;
        $bent = 2 / 7 * 2.5 * $tip * tan(deg2rad(self::ELEVATION)) / self::rollingShare() * max(0.0, 1 - 0.5 * $slide / $distance);
        $byTip = $this->squirt * $growth - $bent;
        $lost = $this->equipment->table->spinDecay * 2 * $distance / ($start + $speed);
        $spin = max(0.0, 2.5 * $tip * $start / $this->equipment->balls->radius - $lost);
        $lever = $distance + $reach * cos($cut);
        $aimed = $this->offsetFor($cut, 0.0, 1e9, $speed, $roll);
        [$slower, $faster, $share] = self::between($this->equipment->balls->passedOn() * $speed * cos($cut));
        $pieces = self::mixed($this->accepted[$slower], $this->accepted[$faster], $share);
        $chance = 0.0;
        foreach ($pieces as $piece) {
            $passed = [];
            foreach ($piece as $edge) {
                $passed[] = $this->passed($cut + $edge - $this->aside, $aimed, $lever, [$byAim, $byTip, $spin], $speed, $roll);
            }
            $chance += abs($passed[1] - $passed[0]);
        }

        $chance = $this->corrected($chance, $cut);

        return $chance < 0.01 ? $chance : $chance * $this->way($cue, $ghost, $distance, hypot($byAim, $byTip));
    }

    /**
     * Chance that the errors leave the cue ball's line to one side of that with which the object ball goes in a direction.
     *
     * @param float                      $direction of the object ball against the cue ball's line as aimed, radians
     * @param float                      $aimed     offset of that line, metres
     * @param array{float, float, float} $errors    one deviation of aim and tip as turns of the line, radians, and of side, rad/s
     */
    private function passed(float $direction, float $aimed, float $lever, array $errors, float $speed, float $roll): float
    {
        [$byAim, $byTip, $spin] = $errors;
        $reach = $this->equipment->balls->diameter();
        $offset = $this->offsetFor($direction, $aimed, $lever, $speed, $roll);
        $turn = ($offset - $aimed) / $lever;
        // How the object ball's direction changes with a turn of the line.
        $slope = 1 - $lever / \sqrt(max(0.002 * $reach ** 2, $reach ** 2 - $offset ** 2));
        $here = $this->heading($offset, 0.0, $speed, $roll);
        $bySpin = ($this->heading($offset, $spin, $speed, $roll) - $here) / $slope;
        $more = 1 + $this->raised * $this->errors->speed;
        $bySpeed = ($this->heading($offset, 0.0, $more * $speed, $more * $roll) - $here) / $slope;

        return Normal::upTo($turn / max(1e-9, \sqrt($byAim ** 2 + ($byTip + $bySpin) ** 2 + $bySpeed ** 2)));
    }

    /**
     * The offset of the cue ball's line from the full one with which the object ball goes in a direction, throw made up for; the line is
     * turned about a point so far away, from one with another offset. What would miss the ball is taken to graze it.
     */
    private function offsetFor(float $direction, float $aimed, float $lever, float $speed, float $roll): float
    {
        $reach = $this->equipment->balls->diameter();
        $offset = -$reach * sin(max(-1.5, min(1.5, $direction)));
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            $throw = $this->heading($offset, 0.0, $speed, $roll) - asin(max(-0.9999, min(0.9999, -$offset / $reach)));
            $angle = $direction - $throw - ($offset - $aimed) / $lever;
            $offset = -$reach * sin(max(-1.55, min(1.55, $angle)));
        }

        return $offset;
    }

    /**
     * @param list<array{float, float}> $these
     * @param list<array{float, float}> $those
     *
     * @return list<array{float, float}> so far from these to those, where they are as many; else the nearer ones
     */
    private static function mixed(array $these, array $those, float $share): array
    {
        if (\count($these) !== \count($those)) {
            return $share < 0.5 ? $these : $those;
        }
        $mixed = [];
        foreach ($these as $i => [$from, $to]) {
            $mixed[] = [$from + $share * ($those[$i][0] - $from), $to + $share * ($those[$i][1] - $to)];
        }

        return $mixed;
    }

    /**
     * The deviation of the cue's direction, radians, and the factor of the tip's errors, for a stroke from a spot (docs/physics.md,
     * section 7). Whether the hand would lie over a ball is left to the tries.
     *
     * @return array{float, float}
     */
    private function grown(Spot $cue, float $direction, float $cut, float $start): array
    {
        $growth = $this->errors->growth;
        $factor = $growth->bySpeed($start) * $this->raised;
        $aim = $factor * (abs($cut) > deg2rad($growth->thinFrom) ? $growth->thin : 1.0);

        return [
            deg2rad($this->errors->aim) * $aim * (Bridge::isOnRail($cue, $direction, $this->equipment) ? $growth->bridge : 1.0),
            $factor,
        ];
    }

    /**
     * The two of SPEEDS between which a speed lies, and how far from the first to the second.
     *
     * @return array{int, int, float}
     */
    private static function between(float $speed): array
    {
        $last = \count(self::SPEEDS) - 1;
        if ($speed <= self::SPEEDS[0]) {
            return [0, 0, 0.0];
        }
        for ($i = 1; $i <= $last; ++$i) {
            if ($speed < self::SPEEDS[$i]) {
                return [$i - 1, $i, ($speed - self::SPEEDS[$i - 1]) / max(1e-9, self::SPEEDS[$i] - self::SPEEDS[$i - 1])];
            }
        }

        return [$last, $last, 0.0];
    }

    /** Chance that the cue ball comes past the balls beside its way. */
    private function way(Spot $cue, Spot $ghost, float $distance, float $turn): float
    {
        $chance = 1.0;
        foreach ($this->sight->clearance($this->layout, $cue, $ghost, [$this->ball]) as $nearest) {
            if (null !== $nearest) {
                $blocker = $this->layout->spot($nearest[1]);
                $chance *= Normal::upTo($nearest[0] / max(min($cue->distanceTo($blocker), $distance) * $turn, 1e-9));
            }
        }

        return $chance < 1e-6 ? 0.0 : $chance;
    }

    /**
     * The cue ball of the usual stroke after a distance.
     *
     * @return array{float, float, float} its speed, the speed at which its spin would roll, and how far it slides in all, metres
     */
    private function arrival(float $start, float $distance): array
    {
        $drag = $this->equipment->table->slide * $this->equipment->table->gravity;
        $time = 2 * $start * (1 - 2.5 * self::HEIGHT) / (7 * $drag);
        $slide = $time * ($start - 0.5 * $drag * $time);
        if ($distance >= $slide) {
            $speed = \sqrt(max(0.01, ($start * self::rollingShare()) ** 2 - $this->drag() * ($distance - $slide)));

            return [$speed, $speed, $slide];
        }
        $time = ($start - \sqrt($start ** 2 - 2 * $drag * $distance)) / $drag;

        return [$start - $drag * $time, 2.5 * self::HEIGHT * $start + 2.5 * $drag * $time, $slide];
    }

    /**
     * Direction of the object ball against the cue ball's, whose line passes the full one at an offset, with side (rad/s) and roll (m/s).
     */
    private function heading(float $offset, float $side, float $speed, float $roll): float
    {
        $sine = max(-0.999, min(0.999, -$offset / $this->equipment->balls->diameter()));
        $cosine = \sqrt(1 - $sine * $sine);
        [$jx, $jy] = $this->contact->impulse($cosine, $sine, $speed, 0.0, 0.0, $roll / $this->equipment->balls->radius, $side);

        return atan2(-$jy, -$jx);
    }
}
