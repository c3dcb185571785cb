// What every page does: the switch between paper and hall light, and the upright table on a narrow screen. Both are cookies,
// since the server draws the page.
export function watchPage() {
    const year = 'max-age=31536000; path=/; samesite=lax';
    document.addEventListener('click', (event) => {
        if (event.target.closest('[data-theme-switch]')) {
            const theme = document.documentElement.dataset.theme === 'hall' ? 'chart' : 'hall';
            document.documentElement.dataset.theme = theme;
            document.cookie = `lane-theme=${theme}; ${year}`;
        }
    });
    // The account's menu closes as menus do.
    document.addEventListener('click', (event) => {
        const menu = document.querySelector('.account[open]');
        if (menu && !menu.contains(event.target)) {
            menu.open = false;
        }
    });
    document.addEventListener('keydown', (event) => {
        const menu = document.querySelector('.account[open]');
        if (menu && event.key === 'Escape') {
            menu.open = false;
            menu.querySelector('summary').focus();
        }
    });
    // A slider tells what it stands at.
    document.addEventListener('input', (event) => {
        const told = event.target.matches('[data-shown]') ? event.target.closest('label').querySelector('output') : null;
        if (told) {
            told.textContent = String(Math.round(100 * Number(event.target.value)) / 100);
        }
    });
    // What was kept for a room without network is nobody else's.
    document.addEventListener('submit', (event) => {
        if (event.target.matches('[action$="/sign-out"]')) {
            window.caches?.delete('lane-table');
        }
    });
    const narrow = window.matchMedia('(max-width: 600px) and (orientation: portrait)');
    const turn = () => {
        const drawn = document.cookie.includes('lane-upright=1');
        if (narrow.matches !== drawn) {
            document.cookie = `lane-upright=${narrow.matches ? 1 : 0}; ${year}`;
            if (document.querySelector('.desk, .shoot')) {
                window.location.reload();
            }
        }
    };
    turn();
    narrow.addEventListener('change', turn);
}
