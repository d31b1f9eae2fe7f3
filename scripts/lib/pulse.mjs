// Whether a server that lives also answers.
import { hasEnded, say } from './system.mjs'

/** How often a server is asked whether it lives (ms), and how often in a row it may not answer within five seconds. */
const PULSE = 5000
const MOST_MISSED = 4

/** Ends a server that lives and does not answer, so that another is started in its place; gives what ends the watch. */
export function watchPulse(answers, server, every = PULSE) {
  let missed = 0
  let asked = null
  const timer = setInterval(async () => {
    const child = server()
    if (child !== asked) missed = 0
    asked = child
    if (await answers()) missed = 0
    else if (child === server() && !hasEnded(child) && ++missed >= MOST_MISSED) {
      say('The server has not answered for half a minute: it is replaced.')
      child.kill('SIGKILL')
      missed = 0
    }
  }, every)
  return () => clearInterval(timer)
}
