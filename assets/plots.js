// Plots of the numbers page: the tables below them hold the same numbers.

import uPlot from 'uplot';
import { word } from './words.js';

const colour = (name) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

const rows = (name) => [...document.querySelectorAll(`[data-plot-rows="${name}"] tr`)].map((row) => ({
    values: JSON.parse(row.dataset.values), label: row.querySelector('th').textContent.trim(),
}));

// Bars from the low to the high end of each interval, over the points.
const intervals = (low, high) => (plot) => {
    const { ctx } = plot;
    ctx.save();
    ctx.setLineDash([]);
    ctx.strokeStyle = colour('--mark');
    ctx.lineWidth = 2 * devicePixelRatio;
    plot.data[0].forEach((x, i) => {
        const at = plot.valToPos(x, 'x', true);
        ctx.beginPath();
        ctx.moveTo(at, plot.valToPos(low[i], 'y', true));
        ctx.lineTo(at, plot.valToPos(high[i], 'y', true));
        ctx.stroke();
    });
    ctx.restore();
};

const axis = (label) => ({
    stroke: colour('--ink'),
    grid: { stroke: colour('--grid') },
    ticks: { stroke: colour('--line') },
    label,
    font: '14px sans-serif',
    labelFont: '14px sans-serif',
});

const drawn = [];

function draw(box) {
    const name = box.dataset.plot;
    const list = rows(name);
    if (list.length === 0) {
        return;
    }
    const isGains = name === 'gains';
    const x = isGains ? list.map((row, i) => i + 1) : list.map(({ values }) => values[0]);
    const [y, low, high] = isGains
        ? [0, 1, 2].map((k) => list.map(({ values }) => values[k]))
        : [1, 2, 3].map((k) => list.map(({ values }) => values[k]));
    const points = {
        label: isGains ? word('points of run-out') : word('came off'),
        stroke: colour('--mark'),
        paths: () => null,
        points: { show: true, size: 11, fill: colour('--mark') },
    };
    const line = { label: word('as stated'), stroke: colour('--ink-soft'), dash: [8, 6], points: { show: false } };
    const options = {
        width: box.clientWidth, height: 260, legend: { show: false }, cursor: { show: false },
        scales: isGains
            ? { x: { time: false, range: [0.5, list.length + 0.5] }, y: { range: [Math.min(0, ...low) - 1, Math.max(1, ...high) + 1] } }
            : { x: { time: false, range: [0, 100] }, y: { range: [0, 100] } },
        axes: isGains
            ? [{ ...axis(''), values: (plot, at) => at.map((i) => list[i - 1]?.label ?? ''), splits: () => x },
                axis(word('points of run-out'))]
            : [axis(word('stated, %')), axis(word('came off, %'))],
        series: isGains ? [{}, points] : [{}, points, line],
        hooks: { draw: [intervals(low, high)] },
    };
    box.replaceChildren();
    drawn.push(new uPlot(options, isGains ? [x, y] : [x, y, x], box));
}

export function drawPlots() {
    const all = () => document.querySelectorAll('[data-plot]').forEach(draw);
    all();
    // Drawn in the theme's colours, and again when it is switched.
    new MutationObserver(all).observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
}
