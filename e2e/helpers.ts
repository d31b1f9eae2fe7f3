import { expect, test, type Page } from '@playwright/test'

const control = Number(process.env.E2E_PORT ?? 4691) + 1

/** Kills the server, as a crash would. */
export const stopServer = async (): Promise<void> => void (await fetch(`http://127.0.0.1:${control}/stop`))
/** Starts it again on the same database. */
export const startServer = async (): Promise<void> => void (await fetch(`http://127.0.0.1:${control}/start`))

/** Opens a demo dossier by its model's name. */
export async function openDossier(page: Page, name: string, station = 'claims'): Promise<string> {
  await page.goto(`/?q=${encodeURIComponent(name)}`)
  await page.getByRole('link', { name, exact: true }).click()
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible()
  const id = /models\/([0-9a-f-]{36})/.exec(page.url())?.[1] ?? ''
  if (station !== 'claims') await page.goto(`/models/${id}/${station}`)
  return id
}

/** Waits until everything typed has reached the server. */
export const saved = (page: Page): Promise<void> =>
  expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible({ timeout: 15000 })

/** Errors of the page: exceptions and anything the security policy blocked. */
export function watchErrors(page: Page): string[] {
  const found: string[] = []
  page.on('pageerror', (e) => found.push(e.message))
  page.on('console', (m) => {
    if (m.type() === 'error' && !/Failed to load resource|net::ERR/.test(m.text())) found.push(m.text())
  })
  return found
}

/** Says something to the simulated bench by SCPI; what its error queue answers. */
export const rig = async (command: string): Promise<string> =>
  (await fetch(`http://127.0.0.1:${control}/rig?${encodeURIComponent(command)}`)).text()
/** Kills the simulated bench, and starts it anew. */
export const rigStop = async (): Promise<void> => void (await fetch(`http://127.0.0.1:${control}/rig-stop`))
export const rigStart = async (): Promise<void> => void (await fetch(`http://127.0.0.1:${control}/rig-start`))

/** Presses a key while a row is moved by keyboard, and waits until the move was said. */
export async function heard(page: Page, key: string, said: RegExp): Promise<void> {
  await page.keyboard.press(key)
  await expect(page.locator('[id^="DndLiveRegion"]').filter({ hasText: said })).toHaveCount(1)
}

/** Moves the row that is held up until it is said to be at the top: a key pressed while the rows still move may not count. */
export const upToTheTop = (page: Page, name: string): Promise<void> =>
  expect(async () => {
    await page.keyboard.press('ArrowUp')
    await expect(page.getByText(`${name} at place 1 of `)).toHaveCount(1, { timeout: 400 })
  }).toPass()

/** A name for something new: another one at a second try, because the first may be there already. */
export const named = (name: string): string => (test.info().retry ? `${name} again` : name)
