// Spots on the cloth, [long, short] in diamonds, and where they are in a drawing of the table, whose units are millimetres.

const STEP = 1 / 8;
const FINE = 1 / 32;

export function toDrawing([long, short], mm, upright) {
    return upright ? [(4 - short) * mm, (8 - long) * mm] : [long * mm, (4 - short) * mm];
}

export function fromPointer(event, drawing, mm, upright) {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(drawing.getScreenCTM().inverse());
    return upright ? [8 - point.y / mm, 4 - point.x / mm] : [point.x / mm, 4 - point.y / mm];
}

// The nearest spot to the wished one that is on the cloth and clear of the other balls by that gap, and whether there is one close by.
export function clear(wished, others, radius, gap) {
    const within = (value, most) => Math.min(most - radius, Math.max(radius, value));
    let spot = [within(wished[0], 8), within(wished[1], 4)];
    for (let round = 0; round < 40; round += 1) {
        const near = others.find((at) => Math.hypot(spot[0] - at[0], spot[1] - at[1]) < 2 * radius - 1e-9);
        if (!near) {
            return [spot, true];
        }
        const away = Math.hypot(spot[0] - near[0], spot[1] - near[1]) || 1e-9;
        const push = (2 * radius + gap) / away;
        spot = [within(near[0] + (spot[0] - near[0] || 1e-9) * push, 8), within(near[1] + (spot[1] - near[1]) * push, 4)];
    }
    return [spot, false];
}

// A spot that was typed as two numbers, along and across; null where it is none.
export function typed(text) {
    const numbers = text.trim().split(/\s*[,;]\s*|\s+/).map(Number);

    return numbers.length === 2 && numbers.every(Number.isFinite) ? numbers : null;
}

// Which way an arrow key moves a ball, as the drawing lies; undefined for other keys.
export function arrow(event, upright) {
    const step = event.shiftKey ? FINE : STEP;
    const arrows = upright
        ? { ArrowUp: [step, 0], ArrowDown: [-step, 0], ArrowLeft: [0, step], ArrowRight: [0, -step] }
        : { ArrowRight: [step, 0], ArrowLeft: [-step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] };
    return arrows[event.key];
}
