// A picture of a table: made small enough to send, and its four corner pockets tapped.

import { word } from './words.js';

const LONGEST = 1200;
const NAMES = [word('head rail, right corner (HR)'), word('foot rail, right corner (FR)'), word('foot rail, left corner (FL)'),
    word('head rail, left corner (HL)')];

export function watchPicture() {
    const page = document.querySelector('[data-picture]');
    if (!page) {
        return;
    }
    const part = (name) => page.querySelector(`[data-picture-${name}]`);
    const [file, canvas, form, say] = ['file', 'canvas', 'form', 'say'].map(part);
    const context = canvas.getContext('2d');
    let corners = [];
    let image = null;

    const draw = () => {
        context.drawImage(image, 0, 0, canvas.width, canvas.height);
        context.lineWidth = 4;
        context.strokeStyle = '#a3195b';
        context.fillStyle = '#a3195b';
        context.font = 'bold 20px sans-serif';
        corners.forEach(([x, y], i) => {
            context.beginPath();
            context.arc(x * canvas.width, y * canvas.height, 14, 0, 2 * Math.PI);
            context.stroke();
            context.fillText(String(i + 1), x * canvas.width + 16, y * canvas.height - 12);
        });
        part('turn').hidden = corners.length !== 4;
        say.textContent = corners.length < 4
            ? word('Tap {number} of 4: {corner}.', { number: corners.length + 1, corner: NAMES[corners.length] })
            : word('All four corners are there.');
        part('back').disabled = corners.length === 0;
        part('go').disabled = corners.length !== 4;
        page.querySelector('[data-corners]').value = JSON.stringify(corners);
    };
    file.addEventListener('change', async () => {
        corners = [];
        try {
            image = await createImageBitmap(file.files[0]);
        } catch {
            image = null;
            say.textContent = word('This picture cannot be shown here. Choose a JPEG or PNG.');
            return;
        }
        const scale = Math.min(1, LONGEST / Math.max(image.width, image.height));
        canvas.width = Math.round(scale * image.width);
        canvas.height = Math.round(scale * image.height);
        part('frame').hidden = false;
        draw();
        propose(image);
    });
    const asFile = () => new Promise((done) => {
        canvas.toBlob((blob) => done(new File([blob], 'table.jpg', { type: 'image/jpeg' })), 'image/jpeg', 0.92);
    });
    // The corners as the server sees them, until the first tap: a person says whether they are right.
    const propose = async (mine) => {
        const data = new FormData();
        data.append('_token', form.elements._token.value);
        context.drawImage(image, 0, 0, canvas.width, canvas.height);
        const sent = asFile();
        draw();
        data.append('picture', await sent);
        try {
            const { corners: seen } = await (await fetch(page.dataset.cornersAt, { method: 'POST', body: data })).json();
            if (seen && corners.length === 0 && image === mine) {
                corners = seen;
                draw();
                say.textContent = `${word('These four are proposed: 1 and 2 on the right rail, 1 at the head.')} ${
                    word('If not, turn them round or tap them anew.')}`;
            }
        } catch {
            // Then all four are tapped.
        }
    };
    part('turn').addEventListener('click', () => {
        corners = [...corners.slice(2), ...corners.slice(0, 2)];
        draw();
    });
    canvas.addEventListener('click', (event) => {
        if (image && corners.length < 4) {
            const box = canvas.getBoundingClientRect();
            corners = [...corners, [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height]];
            draw();
        }
    });
    part('back').addEventListener('click', () => {
        corners = corners.slice(0, -1);
        draw();
    });
    // What is sent is the drawn picture: small, and without what was written beside it.
    form.addEventListener('submit', async (event) => {
        if (!image || form.dataset.ready) {
            return;
        }
        event.preventDefault();
        context.drawImage(image, 0, 0, canvas.width, canvas.height);
        const files = new DataTransfer();
        files.items.add(await asFile());
        file.files = files.files;
        form.dataset.ready = '1';
        form.submit();
    });
}
