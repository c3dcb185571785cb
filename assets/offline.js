// Has the page of the rack, or of the drill, kept for when there is no network, as it is now.

export async function keepOffline(scope = '/racks/') {
    if (!('serviceWorker' in navigator)) {
        return;
    }
    try {
        await navigator.serviceWorker.register('/table-worker.js', { scope });
        const { active } = await navigator.serviceWorker.ready;
        const parts = performance.getEntriesByType('resource')
            .map(({ name }) => name)
            .filter((name) => new URL(name).pathname.startsWith('/assets/'));
        active?.postMessage({ keep: [window.location.href, ...new Set(parts)] });
    } catch {
        // A browser that does not allow it: entries still wait in this page.
    }
}
