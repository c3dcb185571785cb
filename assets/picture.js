// A picture of a table: made small enough to send, and its four corner pockets tapped.

const LONGEST = 1200;
const NAMES = ['head rail, right corner (HR)', 'foot rail, right corner (FR)', 'foot rail, left corner (FL)',
    'head rail, left corner (HL)'];

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
        say.textContent = corners.length < 4 ? `Tap ${corners.length + 1} of 4: ${NAMES[corners.length]}.` : 'All four corners are there.';
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
            say.textContent = 'This picture cannot be shown here. Choose a JPEG or PNG.';
            return;
        }
        const scale = Math.min(1, LONGEST / Math.max(image.width, image.height));
        canvas.width = Math.round(scale * image.width);
        canvas.height = Math.round(scale * image.height);
        part('frame').hidden = false;
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
    form.addEventListener('submit', (event) => {
        if (!image || form.dataset.ready) {
            return;
        }
        event.preventDefault();
        context.drawImage(image, 0, 0, canvas.width, canvas.height);
        canvas.toBlob((blob) => {
            const files = new DataTransfer();
            files.items.add(new File([blob], 'table.jpg', { type: 'image/jpeg' }));
            file.files = files.files;
            form.dataset.ready = '1';
            form.submit();
        }, 'image/jpeg', 0.92);
    });
}
