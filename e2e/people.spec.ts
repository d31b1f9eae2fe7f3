import type { Browser, Locator } from '@playwright/test'
import { TestBench } from './bench'
import { expect, saved, settled, sideways, test, watchErrors, type Page } from './helpers'

const PASSWORDS = { orla: 'otter granite nine lamp', edda: 'kelp tundra violin 8' }
const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true }

/** A bench of each test’s own: from its first owner on, everyone signs in. */
let bench: TestBench
test.beforeEach(async () => {
  bench = await TestBench.open()
})
test.afterEach(() => bench.close())

const opened = async (browser: Browser, options: object = {}): Promise<Page> =>
  (await browser.newContext({ baseURL: bench.url, ...options })).newPage()
/** The note of a model, as a field of its dossier. */
const noteOf = (page: Page, id: string) =>
  page.locator(`[data-row="${id}"][data-field="note"]`).getByRole('textbox')
const value = async (page: Page, id: string): Promise<string> =>
  ((await (await page.request.get(`/api/v1/models/${id}`)).json()) as { note: string }).note

/** Types while something happens: whatever of it is sent meanwhile is still on its way when that is done. */
async function typedMeanwhile(field: Locator, text: string, work: () => Promise<void>): Promise<void> {
  const page = field.page()
  let goOn = (): void => undefined
  const done = new Promise<void>((resolve) => (goOn = resolve))
  await page.route('**/api/v1/**', async (route) => {
    if (route.request().method() !== 'GET') await done
    await route.continue()
  })
  await field.press('End')
  await field.pressSequentially(text)
  await work()
  goOn()
}

test('a stranger’s path: first owner, an editor on a phone, seen, revoked midway, and nothing lost', async ({
  browser,
}) => {
  test.setTimeout(150_000)
  const owner = await opened(browser)
  const errors = watchErrors(owner)
  await owner.goto('/people')
  await expect(owner.getByText('Demo editor').first()).toBeVisible()

  // The first owner, after a password that is soon guessed was refused beside its field.
  await owner.getByLabel('Your name').fill('Orla')
  await owner.getByLabel('A password').fill('password1234')
  await owner.getByRole('button', { name: 'Create the owner account' }).click()
  await expect(owner.getByRole('alert')).toContainText('harder to guess')
  await owner.getByLabel('A password').fill(PASSWORDS.orla)
  await owner.getByRole('button', { name: 'Create the owner account' }).click()
  await expect(owner.getByRole('heading', { name: 'Everyone' })).toBeVisible()

  // An editor is invited, and comes in by the link on a phone.
  await owner.getByLabel('Their name').fill('Edda')
  await owner.getByRole('button', { name: 'Make the link' }).click()
  const link = await owner.getByRole('textbox', { name: /For Edda alone/ }).inputValue()
  expect(link).toMatch(/\/join#[\w-]{43}$/)
  const phone = await opened(browser, PHONE)
  await phone.goto('/')
  await expect(phone.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await phone.goto(link)
  // Only the part after the # changes from one link to another: the page is read anew.
  await phone.reload()
  await expect(phone.getByRole('heading', { name: 'Welcome, Edda' })).toBeVisible()
  expect(await sideways(phone)).toBe(0)
  await phone.getByLabel('Choose a password').fill(PASSWORDS.edda)
  await phone.getByRole('button', { name: 'Sign in' }).click()
  await expect(phone).toHaveURL(`${bench.url}/`)
  await settled(phone)

  // Both on one dossier see each other, and where.
  await phone.getByRole('searchbox').fill('Mop 300')
  await phone.getByRole('link', { name: 'Mop 300', exact: true }).click()
  await expect(phone.getByRole('heading', { level: 1, name: 'Mop 300' })).toBeVisible()
  await settled(phone)
  const id = /models\/([0-9a-f-]{36})/.exec(phone.url())?.[1] ?? ''
  await owner.goto(`/models/${id}/claims`)
  await settled(owner)
  // At the latest with the next beat, on a machine that is busy.
  await expect(owner.getByText('Edda is here')).toBeVisible({ timeout: 30_000 })
  await expect(phone.getByText('Orla is here')).toBeVisible({ timeout: 30_000 })
  const note = noteOf(phone, id)
  await note.focus()
  await expect(owner.getByText('Edda is in this field')).toBeVisible()
  await note.fill('Hums at 50 Hz')
  await note.blur()
  await saved(phone)
  await expect(noteOf(owner, id)).toHaveValue('Hums at 50 Hz')

  // The history says who; the owner takes it back, and the phone sees that.
  await owner.getByRole('link', { name: 'History' }).click()
  const first = owner.getByRole('listitem').first()
  await expect(first).toContainText('Edda changed model Mop 300')
  await expect(first).toContainText('Hums at 50 Hz')
  await first.getByRole('button', { name: /Undo/ }).click()
  await expect(owner.getByText('Orla undid: changed model')).toBeVisible()
  await expect(note).not.toHaveValue('Hums at 50 Hz')

  // Midway through an edit every session of hers is ended: what she typed is kept on the phone, and sent when she is back.
  await owner.goto('/people')
  const before = await value(owner, id)
  const end = owner.getByRole('button', { name: 'End all sessions of Edda' })
  await expect(end).toBeEnabled()
  await typedMeanwhile(note, ' Hums and rattles', async () => {
    await end.click()
    await expect(owner.getByRole('row', { name: /Edda/ })).toContainText('not signed in')
  })
  await expect(phone.getByRole('heading', { name: 'Sign in to go on' })).toBeVisible({ timeout: 20_000 })
  await expect(phone.getByText('One entry is kept on this device')).toBeVisible()
  expect(await value(owner, id)).toBe(before)
  await phone.getByLabel('Name').fill('Edda')
  await phone.getByLabel('Password').fill('not the one it is')
  await phone.getByRole('button', { name: 'Sign in' }).click()
  await expect(phone.getByRole('alert')).toContainText('the password of this name')
  await phone.getByLabel('Password').fill(PASSWORDS.edda)
  await phone.getByRole('button', { name: 'Sign in' }).click()
  await expect.poll(() => value(owner, id)).toBe(`${before} Hums and rattles`)
  await expect(note).toHaveValue(`${before} Hums and rattles`)

  // Removed altogether while she types: the entry stays on the phone, also for whoever signs in there next.
  const sent = await value(owner, id)
  await owner.getByRole('button', { name: 'Remove Edda …' }).click()
  await typedMeanwhile(note, ' Louder in winter', async () => {
    await owner.getByRole('button', { name: 'Remove Edda', exact: true }).click()
    await expect(owner.getByRole('row', { name: /Edda/ })).toHaveCount(0)
  })
  await expect(phone.getByRole('heading', { name: 'Sign in to go on' })).toBeVisible({ timeout: 20_000 })
  await expect(phone.getByText('One entry is kept on this device')).toBeVisible()
  await phone.reload()
  await phone.getByLabel('Name').fill('Orla')
  await phone.getByLabel('Password').fill(PASSWORDS.orla)
  await phone.getByRole('button', { name: 'Sign in' }).click()
  const kept = phone.getByText('One entry of Edda is kept on this device')
  await expect(kept).toBeVisible()
  await kept.click()
  await expect(phone.getByText(/Change to a model .* Louder in winter/)).toBeVisible()
  expect(await value(owner, id)).toBe(sent)
  expect(errors).toEqual([])
})

test('a reader sees everything, cannot type, and what is sent all the same is refused', async ({
  browser,
}) => {
  const owner = await opened(browser)
  await owner.goto('/people')
  await owner.getByLabel('Your name').fill('Orla')
  await owner.getByLabel('A password').fill(PASSWORDS.orla)
  await owner.keyboard.press('Enter')
  await owner.getByLabel('Their name').fill('Rune')
  await owner.getByLabel('Role', { exact: true }).selectOption('reader')
  await owner.getByRole('button', { name: 'Make the link' }).click()
  const link = await owner.getByRole('textbox', { name: /For Rune alone/ }).inputValue()
  const reader = await opened(browser)
  await reader.goto(link)
  await reader.getByLabel('Choose a password').fill('plum kettle orbit seven')
  await reader.keyboard.press('Enter')
  await settled(reader)
  await reader.getByRole('searchbox').fill('Mop 300')
  await reader.getByRole('link', { name: 'Mop 300', exact: true }).click()
  await expect(reader.getByRole('heading', { level: 1, name: 'Mop 300' })).toBeVisible()
  await settled(reader)
  await expect(reader.getByRole('textbox', { name: 'Note' }).last()).toBeDisabled()
  await expect(reader.getByRole('banner').getByText('reads')).toBeVisible()
  await reader.getByRole('button', { name: 'Delete this model' }).click()
  await expect(reader.getByText('One entry is kept on this device and needs your decision')).toBeVisible()
  await reader.getByText('One entry is kept on this device').click()
  await expect(reader.getByText(/Removal of a model.*needs an editor/)).toBeVisible()
  await reader.getByRole('button', { name: 'Discard my change' }).click()
  await expect(reader.getByRole('link', { name: 'Mop 300', exact: true })).toBeVisible()

  // A used link is worth nothing; signing out leads to the way in, and back does not lead in again.
  await reader.goto(link)
  await reader.reload()
  await expect(reader.getByRole('heading', { name: 'This link no longer holds' })).toBeVisible()
  await reader.goto('/people')
  await reader.getByRole('button', { name: 'Sign out' }).click()
  await expect(reader.getByRole('heading', { name: /Sign in/ })).toBeVisible()
  await reader.goBack()
  await reader.goForward()
  await expect(reader.getByRole('heading', { name: /Sign in/ })).toBeVisible()
})
