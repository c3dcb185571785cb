<?php

/*
 * Ten tries of every option of the demo's decision (demo/7-go-or-safe.rack.json), each by the demo player's own errors: prints
 * demo/7-go-or-safe.tries.json. To be run again when the options have changed.
 */

declare(strict_types=1);

use ZigLane\Core\Decide\OptionSearch;
use ZigLane\Core\Decide\Situation;
use ZigLane\Core\Decide\WayKind;
use ZigLane\Core\Decide\WayTrials;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Player\Randomness;

require dirname(__DIR__).'/vendor/autoload.php';

$rack = RackFile::parse((string) file_get_contents(dirname(__DIR__).'/demo/7-go-or-safe.rack.json'))->rack;
$search = new OptionSearch($rack, $rack->player);
$done = array_map(static fn (): array => [], $search->ways());
while ([] !== $due = $search->due($done)) {
    [$way, $block] = $due[0];
    $done[$way][$block] = $search->block($way, $block);
}
$sets = [];
foreach ($search->options($done)->list as $number => $judged) {
    $situation = Situation::of($rack);
    $trials = new WayTrials($situation, $rack, $search->value, $search->solver);
    $random = new Randomness(2026 + $number);
    $results = [];
    for ($try = 0; $try < 10; ++$try) {
        $played = $trials->play($judged->way, $random);
        $left = null === $played ? null : $trials->left(...$played);
        $look = null === $left ? null : $search->value->look($left);
        $isMade = null !== $played && WayKind::Attack === $judged->way->kind && $played[1]->goesOn;
        $results[] = match (true) {
            $isMade => ($look->pot ?? 1.0) >= Plan::ZONE ? 'position' : 'made',
            null === $look || $look->isInHand || $look->pot >= WayTrials::EASY => 'sold',
            default => 'safe',
        };
    }
    if (null !== $judged->way->choice) {
        $sets[] = ['shot' => RackFile::shotToArray($judged->way->choice), 'results' => $results];
    }
}
echo json_encode($sets, \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES), "\n";
