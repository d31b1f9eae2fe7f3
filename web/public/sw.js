// Keeps the app on the device: pages and scripts from the last build seen, and the last answers read, for when the
// server is out of reach. Writes never pass through here; they wait in the page's own outbox.
// The number goes up when the answers' shape changes, so that an old one is never read by a new page.
const ANSWERS = 'ypsometer-answers-6'
const KEPT_ANSWERS = 200

/** Keeps the present build on the device and lets older ones go; does nothing when it is kept already. */
const keepShell = async () => {
  const response = await fetch('/shell.json', { cache: 'no-store' })
  const { version, files } = await response.json()
  const name = `ypsometer-shell-${version}`
  if (await caches.has(name)) return
  const cache = await caches.open(name)
  try {
    await cache.addAll(['/', ...files])
  } catch (error) {
    // Half a shell is worse than the one before.
    await caches.delete(name)
    throw error
  }
  const old = (await caches.keys()).filter((n) => n.startsWith('ypsometer-') && n !== name && n !== ANSWERS)
  await Promise.all(old.map((n) => caches.delete(n)))
}

self.addEventListener('install', (event) => {
  event.waitUntil(keepShell().then(() => self.skipWaiting()))
})
self.addEventListener('activate', (event) => {
  event.waitUntil(self.clients.claim())
})

/** From the server when it answers, else as last kept. */
const fresh = async (request, kept = request) => {
  try {
    return await fetch(request)
  } catch {
    return (await caches.match(kept, { ignoreVary: true })) ?? Response.error()
  }
}

/** A built file never changes under its name. */
const asset = async (request) => (await caches.match(request, { ignoreVary: true })) ?? fetch(request)

/** What an opened dossier holds is kept under the addresses of its parts: those are read when it cannot be had. */
const keepParts = async (cache, url, response) => {
  const { assessment: _, dossier, ...lists } = await response.json()
  const put = (path, part) =>
    cache.put(path, new Response(JSON.stringify(part), { headers: { 'content-type': 'application/json' } }))
  await put(url.replace(/opened$/, 'dossier'), dossier)
  await Promise.all(Object.entries(lists).map(([name, part]) => put(`/api/v1/${name}`, part)))
}

const keepAnswer = async (cache, request, response) => {
  if (request.url.endsWith('/opened')) await keepParts(cache, request.url, response)
  else await cache.put(request, response)
  const keys = await cache.keys()
  await Promise.all(keys.slice(0, Math.max(0, keys.length - KEPT_ANSWERS)).map((k) => cache.delete(k)))
}

/** An answer of the API: fresh when it can be had, else the last one read, marked as such. */
const answer = async (event) => {
  const { request } = event
  const cache = await caches.open(ANSWERS)
  try {
    const response = await fetch(request)
    if (response.ok) event.waitUntil(keepAnswer(cache, request, response.clone()))
    return response
  } catch (error) {
    const kept = await cache.match(request, { ignoreVary: true })
    if (!kept) throw error
    const headers = new Headers(kept.headers)
    headers.set('x-kept-on-device', '1')
    return new Response(kept.body, { status: kept.status, headers })
  }
}

self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (request.method !== 'GET' || url.origin !== self.location.origin) return
  if (request.mode === 'navigate') {
    event.respondWith(fresh(request, '/'))
    // A newer build is kept as soon as it has been seen.
    event.waitUntil(keepShell().catch(() => undefined))
  } else if (url.pathname.startsWith('/assets/')) event.respondWith(asset(request))
  else if (['/theme.js', '/ahead.js', '/mark.svg'].includes(url.pathname)) event.respondWith(fresh(request))
  else if (url.pathname.startsWith('/api/v1/') && !/\/(health|stream|changes|progress)$/.test(url.pathname))
    event.respondWith(answer(event))
})
