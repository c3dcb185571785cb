<?php

declare(strict_types=1);

namespace ZigLane\Core\Odds;

use ZigLane\Core\Motion\BallContact;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Angle;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Side;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Pocket;
use ZigLane\Core\Table\PocketGeometry;

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
    /** Directions that are tried to either side of the middle, up to twice the half of the mouth. */
    private const SAMPLES = 16;
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

    /**
     * @param float                                     $line     direction of the object ball to the middle of the mouth, radians
     * @param non-empty-list<list<array{float, float}>> $accepted what the pocket accepts at each of SPEEDS: from and to, radians to the
     *                                                            left of that line
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
    ) {
        $object = $layout->spot($ball);
        $this->aside = self::onBed(self::aimed($accepted), $object, $line, $accepted, $equipment);
        $this->ghost = $object->towards($line + $this->aside + \M_PI, $equipment->balls->diameter());
        $this->needed = 7 / 5 * \sqrt(self::ARRIVAL ** 2 + $this->drag() * $object->distanceTo($equipment->geometry->at($pocket)->mouth()));
        $this->tip = 0.001 * $errors->tipSide / $equipment->balls->radius;
        $this->squirt = Strike::degrees(0.0, 1.0, min($this->tip, Cue::MISCUE_LIMIT), 0.0, 0.0, $equipment->cue->endMassRatio)->squirt();
    }

    /** The pot of a ball on this layout, whose cue ball does not count; null where the ball cannot be sent into the pocket straight. */
    public static function find(Layout $layout, Ball $ball, Pocket $pocket, ShotSolver $solver, ExecutionErrors $errors): ?self
    {
        $object = $layout->spot($ball);
        $equipment = $solver->equipment;
        $geometry = $equipment->geometry->at($pocket);
        if ($geometry->depth($object) > -1e-6) {
            return null;
        }
        $layout = $layout->without(Ball::Cue);
        $line = $object->directionTo($geometry->mouth());
        $half = self::halfMouth($geometry, $object);
        $rollouts = $solver->simulator->rolloutsOf($layout, $ball);
        $accepted = [];
        foreach (self::SPEEDS as $speed) {
            $accepted[] = self::accepted($half, static function (float $turn) use ($pocket, $line, $speed, $rollouts): bool {
                // Sliding without spin, as it leaves the contact.
                return $rollouts->drops([$speed * cos($line + $turn), $speed * sin($line + $turn), 0.0, 0.0, 0.0], $pocket);
            });
            // What does not go slowly does not go at all.
            if ([] === $accepted[0]) {
                return null;
            }
        }

        return new self(
            $layout, $ball, $pocket, $line, $accepted, $equipment, $errors,
            new BallContact($equipment->balls), new Sight($equipment->balls),
        );
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
    private static function accepted(float $half, \Closure $drops): array
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
        for ($i = -self::SAMPLES; $i <= self::SAMPLES; ++$i) {
            $turn = 2 * $half * $i / self::SAMPLES;
            $in = $drops($turn);
            if ($in && null === $from) {
                $from = $i > -self::SAMPLES ? $edge($turn, $last) : $turn;
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
        return atan2(0.5 * $pocket->noseA->distanceTo($pocket->noseB), $object->distanceTo($pocket->mouth()));
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
        $far = $this->layout->spot($this->ball)->distanceTo($this->equipment->geometry->at($this->pocket)->mouth());

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
            max(self::SPEED, 2 * $this->needed / ((1 + $this->equipment->balls->restitution) * max(cos($cut), 0.05))),
        );

        return \sqrt($contact ** 2 + $this->drag() * $cue->distanceTo($this->ghost)) / self::rollingShare();
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

    /** The shot of the usual stroke from a spot. */
    public function choice(Spot $cue): ShotChoice
    {
        return new ShotChoice($this->ball, $this->pocket, $this->stroke($cue));
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
        if (0.5 * (1 + $this->equipment->balls->restitution) * $contact * max(cos($cut), 0.0) < self::ENOUGH * $this->needed) {
            return 0.0;
        }

        return $this->chanceStarting($cue, \sqrt($contact ** 2 + $this->drag() * $cue->distanceTo($this->ghost)) / self::rollingShare());
    }

    /** @param float $start speed of the cue ball just after the hit, m/s */
    private function chanceStarting(Spot $cue, float $start): float
    {
        $reach = $this->equipment->balls->diameter();
        $ghost = $this->ghost;
        $distance = max($cue->distanceTo($ghost), 1e-6);
        $aim = $cue->directionTo($ghost);
        $cut = Angle::wrapped($this->aimedLine() - $aim);
        if (abs($cut) > 1.4 || $cue->distanceTo($this->layout->spot($this->ball)) < $reach) {
            return 0.0;
        }
        // One standard deviation of each error, through the contact. The aim turns the cue ball's line; so does the tip: by squirt away
        // from its side, less what the raised cue bends back until the ball rolls; its side then throws the object ball back.
        [$speed, $roll, $slide] = $this->arrival($start, $distance);
        $tip = $this->tip;
        $bent = 2 / 7 * 2.5 * $tip * tan(deg2rad(self::ELEVATION)) / self::rollingShare() * max(0.0, 1 - 0.5 * $slide / $distance);
        $byTip = $this->squirt - $bent;
        $spin = 2.5 * $tip * $start / $this->equipment->balls->radius;
        $byAim = deg2rad($this->errors->aim);
        $turn = hypot($byAim, $byTip);
        $offset = -$reach * sin($cut);
        $lever = $distance + $reach * cos($cut);
        $heading = fn (float $offset, float $spin, float $share): float => $this->heading($offset, $spin, $share * $speed, $share * $roll);
        $spread = static fn (float $turn, float $spin): float => $turn + 0.5 * ($heading(
            $offset + $lever * $turn,
            $spin,
            1.0,
        ) - $heading($offset - $lever * $turn, -$spin, 1.0));
        $speeds = 5 * $this->errors->speed * ($heading($offset, 0.0, 1.1) - $heading($offset, 0.0, 0.9));
        $deviation = \sqrt($spread($byAim, 0.0) ** 2 + $spread($byTip, $spin) ** 2 + $speeds ** 2);
        $deviation = max($deviation, 1e-9);
        [$slower, $faster, $share] = self::between(0.5 * (1 + $this->equipment->balls->restitution) * $speed * cos($cut));
        $chance = (1 - $share) * $this->drops($slower, $deviation) + ($share > 0.0 ? $share * $this->drops($faster, $deviation) : 0.0);

        return $chance < 0.01 ? $chance : $chance * $this->way($cue, $ghost, $distance, $turn);
    }

    /** Chance that the ball drops at one of SPEEDS when its direction has a standard deviation, radians. */
    private function drops(int $speed, float $deviation): float
    {
        $chance = 0.0;
        foreach ($this->accepted[$speed] as [$from, $to]) {
            $chance += Normal::between(($from - $this->aside) / $deviation, ($to - $this->aside) / $deviation);
        }

        return $chance;
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
