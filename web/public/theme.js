// Sets the theme before the first paint, so that a dark room stays dark.
try {
  const kept = localStorage.getItem('ypsometer.theme')
  const dark = kept ? kept === 'fishroom' : matchMedia('(prefers-color-scheme: dark)').matches
  document.documentElement.dataset.theme = dark ? 'fishroom' : 'paper'
} catch {
  document.documentElement.dataset.theme = 'paper'
}
