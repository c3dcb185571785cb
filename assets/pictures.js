// The drawing of a table as a picture of its own, to be sent to somebody: with the styles that the page gives it.

const STYLES = [
    'fill', 'fill-opacity', 'fill-rule', 'stroke', 'stroke-width', 'stroke-opacity', 'stroke-dasharray', 'stroke-linecap',
    'stroke-linejoin', 'opacity', 'font-family', 'font-size', 'font-weight', 'font-style', 'text-anchor', 'dominant-baseline',
    'paint-order', 'visibility', 'display',
];
const WIDE = 1600;

function drawn(svg) {
    const copy = svg.cloneNode(true);
    const [from, to] = [svg.querySelectorAll('*'), copy.querySelectorAll('*')];
    from.forEach((part, i) => {
        const style = getComputedStyle(part);
        for (const name of STYLES) {
            to[i].setAttribute(name, style.getPropertyValue(name));
        }
        to[i].removeAttribute('class');
    });
    const { x, y, width, height } = svg.viewBox.baseVal;
    const ground = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
    for (const [name, value] of Object.entries({ x, y, width, height, fill: getComputedStyle(document.body).backgroundColor })) {
        ground.setAttribute(name, value);
    }
    copy.prepend(ground);
    copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
    copy.setAttribute('width', WIDE);
    copy.setAttribute('height', Math.round((WIDE * height) / width));
    copy.removeAttribute('class');

    return new XMLSerializer().serializeToString(copy);
}

function save(address, name) {
    const link = document.createElement('a');
    link.href = address;
    link.download = name;
    link.click();
}

export function watchPictures() {
    document.addEventListener('click', async (event) => {
        const button = event.target.closest('[data-save-picture]');
        const svg = document.querySelector('svg.lane-table');
        if (!button || !svg) {
            return;
        }
        const { savePicture: kind, name } = button.dataset;
        const address = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(drawn(svg))}`;
        if (kind === 'svg') {
            save(address, `${name}.svg`);
        } else {
            const image = new Image();
            image.src = address;
            await image.decode();
            const canvas = document.createElement('canvas');
            [canvas.width, canvas.height] = [image.naturalWidth, image.naturalHeight];
            canvas.getContext('2d').drawImage(image, 0, 0);
            save(canvas.toDataURL('image/png'), `${name}.png`);
        }
        button.dataset.saved = '1';
    });
}
