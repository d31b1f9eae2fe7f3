import { useEffect } from 'react'

/** Keeps the screen on while the view is open, where the browser allows it. */
export function useAwake(): void {
  useEffect(() => {
    if (!('wakeLock' in navigator)) return
    let lock: WakeLockSentinel | null = null
    let left = false
    const ask = (): void => {
      if (document.visibilityState !== 'visible') return
      navigator.wakeLock.request('screen').then(
        (l) => {
          // Granted when the view is already left, it would keep the screen on for good.
          if (left) void l.release()
          else lock = l
        },
        () => undefined,
      )
    }
    ask()
    document.addEventListener('visibilitychange', ask)
    return () => {
      left = true
      document.removeEventListener('visibilitychange', ask)
      void lock?.release()
    }
  }, [])
}

/** A short buzz and tick when a run is taken, so that the eyes can stay on the water. */
export function tick(): void {
  try {
    navigator.vibrate?.(60)
    const audio = new AudioContext()
    const tone = audio.createOscillator()
    const gain = audio.createGain()
    gain.gain.value = 0.08
    tone.frequency.value = 880
    tone.connect(gain).connect(audio.destination)
    tone.start()
    tone.stop(audio.currentTime + 0.08)
    tone.onended = () => void audio.close()
  } catch {
    // Neither is needed to keep the run.
  }
}
