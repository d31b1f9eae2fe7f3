import { register } from 'tsx/esm/api'

// A thread of Node 20 does not take the loader of its process along.
register()
await import('./rankThread.ts')
