// Keeps the page of the rack that is being shot or of the drill that is played, with its styles and scripts, for when the room has no network.

const CACHE = 'lane-table';

const isPage = (url) => /^\/racks\/[0-9a-f-]+\/shoot$|^\/practice\/[0-9a-f-]+$/.test(url.pathname);

async function keepPage(request, response) {
    const cache = await caches.open(CACHE);
    for (const other of await cache.keys()) {
        if (isPage(new URL(other.url))) {
            await cache.delete(other);
        }
    }
    await cache.put(request, response);
}

self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));

self.addEventListener('message', (event) => {
    if (!Array.isArray(event.data?.keep)) {
        return;
    }
    event.waitUntil(Promise.all(event.data.keep.map(async (address) => {
        const url = new URL(address, self.location.origin);
        if (url.origin !== self.location.origin) {
            return;
        }
        try {
            const response = await fetch(url, { credentials: 'same-origin' });
            if (response.ok && !response.redirected) {
                await (isPage(url) ? keepPage(url.pathname, response) : (await caches.open(CACHE)).put(url.pathname, response));
            }
        } catch {
            // No network: what is kept stays.
        }
    })));
});

self.addEventListener('fetch', (event) => {
    const { request } = event;
    const url = new URL(request.url);
    if (request.method !== 'GET' || url.origin !== self.location.origin) {
        return;
    }
    if (request.mode === 'navigate' && isPage(url)) {
        event.respondWith((async () => {
            try {
                const response = await fetch(request);
                if (response.ok && !response.redirected) {
                    await keepPage(url.pathname, response.clone());
                }
                return response;
            } catch (error) {
                const kept = await caches.match(url.pathname);
                if (kept) {
                    return kept;
                }
                throw error;
            }
        })());
    } else if (url.pathname.startsWith('/assets/')) {
        event.respondWith((async () => (await caches.match(url.pathname)) ?? fetch(request))());
    }
});
