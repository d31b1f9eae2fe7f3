/** Pauses between two tries while the server is away (ms): the first, and the longest. */
const FIRST = 500
const LONGEST = 4000

const serverThere = async (): Promise<boolean> => {
  const answer = await fetch('/api/v1/health', { cache: 'no-store' }).catch(() => null)
  return answer?.ok === true
}

/**
 * Reads something that the server gives, and waits for as long as the server is away. What fails with the server there
 * is tried once more.
 * @param mayCome Whether such a failure can come of the server being away.
 * @throws What `read` throws with the server there, or what cannot come of that.
 */
export async function retryWhenBack<T>(
  read: () => Promise<T>,
  mayCome: (error: unknown) => boolean = () => true,
): Promise<T> {
  for (let pause = FIRST; ; pause = Math.min(2 * pause, LONGEST)) {
    try {
      return await read()
    } catch (error) {
      if (!mayCome(error)) throw error
      if (await serverThere()) return read()
    }
    await new Promise((done) => setTimeout(done, pause))
  }
}
