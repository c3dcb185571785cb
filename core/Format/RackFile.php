<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Format\Internal\Arrays;
use ZigLane\Core\Format\Internal\Players;
use ZigLane\Core\Format\Internal\Reader;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Rules\Standing;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Equipment;

/**
 * A rack file: a layout with its game, table, balls, cue and player; on request with the sheet's name and its shot. Format
 * "zig-lane/rack", version 1. Writing and parsing give back the same rack to the last bit.
 */
final readonly class RackFile
{
    public const FORMAT = 'zig-lane/rack';
    public const MAX_NAME = 80;

    private const MOST_LEGS = 60;

    /** @param list<ShotChoice> $later the legs after the shot */
    public function __construct(public Rack $rack, public ?string $name = null, public ?ShotChoice $shot = null, public array $later = [])
    {
    }

    /** @throws InvalidFile With every fault that was found */
    public static function parse(string $json, int $maxBytes = 65536, int $maxBalls = 16): self
    {
        $document = Reader::document($json, $maxBytes, self::FORMAT);
        $reader = new Reader();
        $reader->onlyKnown(
            $document,
            '',
            [
                'format', 'version', 'name', 'game', 'layout', 'layoutDiamonds', 'ballInHand', 'group',
                'rules', 'player', 'cue', 'table', 'balls', 'shot', 'later', 'foulsInARow', 'otherFouls', 'pushOut', 'mayPass',
                'rackedFourteen',
            ],
        );
        $table = $reader->table($document);
        $balls = $reader->balls($document);
        $cueObject = $reader->object($document, '', 'cue');
        $reader->onlyKnown($cueObject, 'cue', ['endMassRatio']);
        $equipment = new Equipment($table, $balls, $reader->cue($cueObject, 'cue'));
        $player = Players::read($reader, $reader->object($document, '', 'player'), 'player');
        $game = $reader->choice($document, '', 'game', Game::class, true);
        $inHand = $reader->choice($document, '', 'ballInHand', BallInHand::class, false) ?? BallInHand::None;
        $group = $reader->choice($document, '', 'group', Group::class, false);
        [$layout, $field] = $reader->layout($document, $table, $maxBalls);
        $layout = self::racked($reader, $document['rackedFourteen'] ?? false, $game, $layout, $equipment);
        if (null !== $game && $reader->isClean()) {
            $reader->layoutFaults(Rack::faults($game, $layout, $equipment), $field);
        }
        if (BallInHand::None !== $inHand && $layout->has(Ball::Cue)) {
            $reader->fault($field.'.cue', 'cueInHand', ['where' => $inHand->value]);
        }
        $rules = self::rules($reader, $reader->object($document, '', 'rules'));
        $standing = self::standing($reader, $document);
        $name = self::name($reader, $document['name'] ?? null);
        $shot = isset($document['shot']) ? self::shot($reader, $reader->object($document, '', 'shot'), 'shot') : null;
        $later = self::later($reader, $document['later'] ?? []);
        $reader->finish();
        \assert(null !== $game);

        $rack = new Rack($game, $layout, $equipment, $player, $inHand, $group, $rules, $standing);

        return new self($rack, $name, $shot, null === $shot ? [] : $later);
    }

    /**
     * The `rack` of another file.
     *
     * @internal for the readers of such files
     *
     * @param array<mixed> $document
     *
     * @throws InvalidFile With every fault that was found, each at its place in that file
     */
    public static function inside(Reader $reader, array $document): Rack
    {
        $rack = null;
        try {
            $rack = self::parse(json_encode(
                $reader->object($document, '', 'rack', true),
                \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION,
            ))->rack;
        } catch (InvalidFile $e) {
            foreach ($e->faults as $fault) {
                $reader->because('rack.'.$fault->path, $fault->fact);
            }
            $reader->finish();
        }
        \assert(null !== $rack);

        return $rack;
    }

    /**
     * The errors of a player as files hold them.
     *
     * @param array<mixed> $player
     *
     * @throws InvalidFile If they are not valid
     */
    public static function player(array $player): ExecutionErrors
    {
        $reader = new Reader();
        $errors = Players::read($reader, $player, 'player');
        $reader->finish();

        return $errors;
    }

    public function write(): string
    {
        $rack = $this->rack;
        $document = [
            'format' => self::FORMAT,
            'version' => 1,
            'name' => $this->name,
            'game' => $rack->game->value,
            'layoutDiamonds' => Arrays::layout($rack->layout, $rack->equipment->table, Rack::GRAIN),
            'ballInHand' => $rack->ballInHand->value,
            'group' => $rack->group?->value,
            'rules' => $rack->rules->chosen(),
            'foulsInARow' => $rack->standing->fouls ?: null,
            'otherFouls' => $rack->standing->otherFouls ?: null,
            'pushOut' => $rack->standing->mayPush ?: null,
            'mayPass' => $rack->standing->mayPass ?: null,
            'player' => $rack->player->toArray(),
            ...Arrays::equipment($rack->equipment),
            'shot' => null === $this->shot ? null : self::shotToArray($this->shot),
            'later' => [] === $this->later ? null : array_map(self::shotToArray(...), $this->later),
        ];
        foreach (['name', 'rules', 'foulsInARow', 'otherFouls', 'pushOut', 'mayPass', 'shot', 'later'] as $optional) {
            if (!isset($document[$optional]) || [] === $document[$optional]) {
                unset($document[$optional]);
            }
        }

        return json_encode(
            $document,
            \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE,
        );
    }

    /**
     * @return array{
     *     ball: string, pocket: string, speed: float, side: float, height: float, elevation: float, aside?: float, direction?: float,
     *     safety?: true
     * }
     */
    public static function shotToArray(ShotChoice $shot): array
    {
        return [
            'ball' => $shot->ball->label(),
            'pocket' => $shot->pocket->value,
            'speed' => $shot->stroke->speed,
            'side' => $shot->stroke->tip->side,
            'height' => $shot->stroke->tip->height,
            'elevation' => $shot->stroke->elevation,
            ...(0.0 === $shot->aside ? [] : ['aside' => $shot->aside]),
            // Aimed by hand: the cue's own direction, degrees.
            ...(null === $shot->direction ? [] : ['direction' => rad2deg($shot->direction)]),
            // Nothing is called.
            ...($shot->isSafety ? ['safety' => true] : []),
        ];
    }

    /**
     * The reverse of shotToArray, for stored shots.
     *
     * @param array<mixed> $shot
     *
     * @throws InvalidFile If it is not valid
     */
    public static function shotFromArray(array $shot): ShotChoice
    {
        $reader = new Reader();
        $choice = self::shot($reader, $shot, 'shot');
        $reader->finish();
        \assert(null !== $choice);

        return $choice;
    }

    /** @param array<mixed> $document */
    private static function standing(Reader $reader, array $document): Standing
    {
        foreach (['pushOut', 'mayPass'] as $field) {
            if (!\is_bool($document[$field] ?? false)) {
                $reader->fault($field, 'boolean', ['found' => Reader::show($document[$field])]);
            }
        }

        return new Standing(
            (int) $reader->number($document, '', 'foulsInARow', 0.0, 2.0, 0.0),
            (int) $reader->number($document, '', 'otherFouls', 0.0, 2.0, 0.0),
            true === ($document['pushOut'] ?? false),
            true === ($document['mayPass'] ?? false),
        );
    }

    /** Straight pool: fourteen balls racked beside the one that a file lays out. */
    private static function racked(Reader $reader, mixed $isRacked, ?Game $game, Layout $layout, Equipment $equipment): Layout
    {
        if (!\is_bool($isRacked)) {
            $reader->fault('rackedFourteen', 'boolean', ['found' => Reader::show($isRacked)]);
        }
        if (true !== $isRacked || !$reader->isClean()) {
            return $layout;
        }
        $racked = true === $game?->rules()->countsBalls && 1 === $layout->without(Ball::Cue)->count()
            ? Racking::fourteen($layout, $equipment)
            : null;
        if (null === $racked) {
            $reader->fault('rackedFourteen', true === $game?->rules()->countsBalls ? 'fourteen' : 'fourteenGame');
        }

        return $racked ?? $layout;
    }

    /** @param array<mixed> $object choices of the rules, true or false each */
    private static function rules(Reader $reader, array $object): RuleOptions
    {
        $reader->onlyKnown($object, 'rules', [...RuleOptions::NAMES, ...RuleOptions::OLD]);
        foreach ($object as $name => $value) {
            if (!\is_bool($value)) {
                $reader->fault('rules.'.$name, 'boolean', ['found' => Reader::show($value)]);
            }
        }

        return RuleOptions::of(array_keys($object, true, true));
    }

    private static function name(Reader $reader, mixed $name): ?string
    {
        if (null === $name) {
            return null;
        }
        if (!\is_string($name) || '' === trim($name) || mb_strlen($name) > self::MAX_NAME) {
            $reader->fault('name', 'name', ['found' => Reader::show($name), 'most' => self::MAX_NAME]);

            return null;
        }

        return trim($name);
    }

    /** @return list<ShotChoice> */
    private static function later(Reader $reader, mixed $list): array
    {
        if (!\is_array($list) || !array_is_list($list) || \count($list) > self::MOST_LEGS) {
            $reader->fault('later', 'shots', ['found' => Reader::show($list), 'most' => self::MOST_LEGS]);

            return [];
        }
        $shots = [];
        foreach ($list as $i => $shot) {
            if (!\is_array($shot)) {
                $reader->fault("later.$i", 'shot', ['found' => Reader::show($shot)]);
                continue;
            }
            $choice = self::shot($reader, $shot, "later.$i");
            if (null !== $choice) {
                $shots[] = $choice;
            }
        }

        return $shots;
    }

    /** @param array<mixed> $shot */
    private static function shot(Reader $reader, array $shot, string $path): ?ShotChoice
    {
        $reader->onlyKnown(
            $shot,
            $path,
            ['ball', 'pocket', 'speed', 'side', 'height', 'elevation', 'aside', 'direction', 'safety'],
        );
        $safety = $shot['safety'] ?? false;
        if (!\is_bool($safety)) {
            $reader->fault("$path.safety", 'boolean', ['found' => Reader::show($safety)]);
        }
        $name = $shot['ball'] ?? null;
        $ball = \is_string($name) ? Ball::named($name) : null;
        if (null === $ball || Ball::Cue === $ball) {
            $reader->fault("$path.ball", 'objectBall', ['found' => Reader::show($name)]);
        }
        $pocket = $reader->choice($shot, $path, 'pocket', Pocket::class, true);
        $speed = $reader->number($shot, $path, 'speed', 0.001, Strike::MAX_SPEED);
        $side = $reader->number($shot, $path, 'side', -1.0, 1.0, 0.0);
        $height = $reader->number($shot, $path, 'height', -1.0, 1.0, 0.0);
        $elevation = $reader->number($shot, $path, 'elevation', 0.0, Strike::MAX_ELEVATION_DEGREES, 0.0);
        $aside = $reader->number($shot, $path, 'aside', -ShotChoice::MOST_ASIDE, ShotChoice::MOST_ASIDE, 0.0);
        $direction = isset($shot['direction']) ? deg2rad($reader->number($shot, $path, 'direction', -360.0, 360.0)) : null;
        if (!$reader->isClean() || null === $ball || null === $pocket) {
            return null;
        }
        try {
            $stroke = new Stroke(Tip::fractions($side, $height), $speed, $elevation);

            return new ShotChoice($ball, $pocket, $stroke, $aside, $direction, true === $safety);
        } catch (IllegalStroke $e) {
            $reader->because("$path.side", $e->fact());

            return null;
        }
    }
}
