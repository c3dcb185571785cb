// Codes on printed cards, which open the drill on a phone.

import qrcode from 'qr';
import { word } from './words.js';

export function drawCodes() {
    for (const place of document.querySelectorAll('[data-qr]')) {
        const code = qrcode(0, 'M');
        code.addData(new URL(place.dataset.qr, window.location.href).href);
        code.make();
        const size = code.getModuleCount();
        const parts = [];
        for (let row = 0; row < size; row += 1) {
            for (let column = 0; column < size; column += 1) {
                if (code.isDark(row, column)) {
                    parts.push(`M${column} ${row}h1v1h-1z`);
                }
            }
        }
        const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
        svg.setAttribute('viewBox', `-2 -2 ${size + 4} ${size + 4}`);
        svg.setAttribute('role', 'img');
        svg.setAttribute('aria-label', word('A code that opens this drill on a phone'));
        const path = document.createElementNS('http://www.w3.org/2000/svg', 'path');
        path.setAttribute('d', parts.join(''));
        svg.append(path);
        place.replaceChildren(svg);
        place.dataset.drawn = '1';
    }
    for (const button of document.querySelectorAll('[data-print]')) {
        button.addEventListener('click', () => window.print());
    }
}
