import { expect, test, type Page } from '@playwright/test'
import { hearing } from './hearing.ts'
import { wavFile } from './wav.ts'

const words = (page: Page) => page.getByTestId('tuner-words')
const note = (page: Page) => page.getByTestId('tuner-note')

/** The stand-in's detuning, by the keys of its slider. */
async function detune(page: Page, presses: number, key: 'ArrowRight' | 'ArrowLeft'): Promise<void> {
  const slider = page.getByRole('slider', { name: /^Off by/ })
  await slider.focus()
  for (let i = 0; i < presses; i++) await slider.press(key)
}

test('a simulated string is heard: which one, how far off, and what to do, until it is in tune', async ({
  page,
}) => {
  await page.goto('/tuner')
  await page.getByRole('radiogroup', { name: 'What is listened to' }).getByText('Simulated string').click()
  await page.getByRole('button', { name: 'Listen' }).click()
  await expect(note(page)).toHaveText('E4string 1')
  await expect(words(page)).toHaveText(/^1[789] cents flat: tighten a little$/)
  await page.getByRole('radiogroup', { name: 'String of the simulation' }).getByText('5').click()
  await expect(note(page)).toHaveText('A2string 5')
  await detune(page, 48, 'ArrowRight')
  await expect(words(page)).toHaveText(/^(29|30|31) cents sharp: loosen$/)
  // A noisy room moves the needle little.
  await page.getByRole('switch', { name: 'A noisy room' }).check({ force: true })
  await expect(words(page)).toHaveText(/^(2[89]|3[012]) cents sharp: loosen$/)
  await detune(page, 30, 'ArrowLeft')
  await expect(words(page)).toHaveText('In tune')
  const strings = page.getByRole('group', { name: 'Which string' })
  await expect(strings.getByLabel('in tune')).toHaveCount(1)
  // A string that is asked for is told apart from the one that sounds.
  await strings.getByText('6 · E2').click()
  await expect(words(page)).toHaveText('This sounds like another string than 6')
})

test('a capo asks for another look at every string; A4 and the tuning move what is wanted', async ({
  page,
}) => {
  await page.goto('/tuner?capo=2')
  await page.getByRole('radiogroup', { name: 'What is listened to' }).getByText('Simulated string').click()
  await detune(page, 18, 'ArrowRight')
  await page.getByRole('button', { name: 'Listen' }).click()
  await expect(note(page)).toHaveText('F♯4string 1')
  await expect(words(page)).toHaveText('In tune')
  await expect(page.getByLabel('in tune')).toHaveCount(1)
  await expect(page.getByText('A capo pulls strings sharp')).toBeVisible()
  await page.getByRole('switch', { name: 'With the capo on (fret 2)' }).uncheck({ force: true })
  await expect(page.getByText('Tuning or capo has changed: check every string again.')).toBeVisible()
  await expect(note(page)).toHaveText('E4string 1')
  const a4 = page.getByRole('textbox', { name: 'A4 at' })
  await a4.fill('443')
  await page.reload()
  await expect(a4).toHaveValue('443 Hz')
})

test('a microphone is listened to: a D string that is 20 cents flat, from a sound file', async ({
  baseURL,
}) => {
  const hertz = 146.832 * 2 ** (-20 / 1200)
  // Partials of a plucked string, fading and coming again twice a second: the file is played round and round.
  const string = wavFile(4, (t) => {
    const since = t % 2
    return [1, 2, 3, 4, 5].reduce(
      (sum, n) => sum + (0.35 / n) * Math.exp(-since * n * 0.7) * Math.sin(2 * Math.PI * n * hertz * t),
      0,
    )
  })
  await hearing(string, baseURL, async (page) => {
    await page.goto('/tuner')
    await page.getByRole('button', { name: 'Listen' }).click()
    await expect(note(page)).toHaveText('D3string 4')
    await expect(words(page)).toHaveText(/^(19|20|21) cents flat: tighten a little$/)
    await page.getByRole('button', { name: 'Stop listening' }).click()
    await expect(note(page)).toContainText('Press “Listen”')
  })
})

test('where there is no microphone, or it is refused, the page says what to do instead', async ({ page }) => {
  await page.addInitScript(() => {
    let asked = 0
    Object.defineProperty(navigator.mediaDevices, 'getUserMedia', {
      value: () => Promise.reject(new DOMException('', asked++ === 0 ? 'NotAllowedError' : 'NotFoundError')),
    })
  })
  await page.goto('/tuner')
  await page.getByRole('button', { name: 'Listen' }).click()
  await expect(page.getByRole('alert')).toContainText('has refused the microphone')
  await page.getByRole('button', { name: 'Stop listening' }).click()
  await page.getByRole('button', { name: 'Listen' }).click()
  await expect(page.getByRole('alert')).toContainText('No microphone was found')
})
