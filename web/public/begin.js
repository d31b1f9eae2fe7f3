// Starts the app once what the server drew has been painted; at once where nobody looks, for nothing is painted there.
{
  const { app } = document.currentScript.dataset
  let begun = false
  // With the server gone in between, it is tried until it is back: a picture alone answers nobody.
  const read = () => import(app).catch(() => setTimeout(read, 2000))
  const begin = () => {
    if (begun) return
    begun = true
    const ahead = document.createElement('script')
    ahead.src = '/ahead.js'
    document.head.append(ahead)
    read()
  }
  if (document.hidden) begin()
  // The frame after the first: by then that one is on the screen.
  requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(begin)))
  setTimeout(begin, 500)
}
