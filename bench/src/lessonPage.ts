import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { guitarSetup } from '@velvet-porch/core/instrument'
import { arrangementOf, arranging, wholeTune } from '@velvet-porch/core/arrange'
import { lessonOf, lessonSteps, USUAL_LESSON } from '@velvet-porch/core/lesson'
import { finish } from '@velvet-porch/core/turns'
import { readAbc } from '@velvet-porch/core/input/abc'
import { timed } from './calibration.ts'
import { paste } from '../../e2e/bench.ts'
import { benchTune } from './engine.ts'
import { atMost, type Figure } from './figure.ts'
import type { Bench } from './page.ts'

/** Figures of teaching in the core: the least of several runs, warm. */
export function lessonFigures(): Figure[] {
  const tune = readAbc(benchTune(200), () => 'tune')[0]!.tune!
  const regions = wholeTune(tune, 'alternating-bass', 3)
  const { layer, plan } = finish(arranging(tune, guitarSetup(), regions))
  const made = { layer, transposed: plan.transposed }
  const doc = arrangementOf('a', tune.title, tune, guitarSetup(), regions, made)
  const least = (once: () => unknown) => Math.min(...Array.from({ length: 12 }, () => timed(once)))
  const steps = least(() => lessonSteps(tune, doc))
  const whole = least(() => lessonOf(tune, doc, USUAL_LESSON))
  return [
    atMost('steps of a lesson, 200 measures', steps, 'ms', 100),
    {
      name: 'the same with script, effort, pieces and plan',
      value: `${whole.toFixed(0)} ms`,
      aim: '—',
      met: true,
    },
  ]
}

/** Figures of handing out: a PDF of six pages, a lesson file opened from the disk until it plays. */
export async function handoutFigures({ browser, base }: Bench): Promise<Figure[]> {
  const folder = mkdtempSync(join(tmpdir(), 'velvet-bench-'))
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await paste(page, benchTune(48), base)
  await page.getByRole('link', { name: 'Arrange this tune' }).click()
  await page.locator('.tab-fret').first().waitFor()
  await page.getByRole('link', { name: 'Hand out' }).click()
  const count = async () =>
    Number(/\d+/.exec(await page.getByTestId('pages').getByRole('status').innerText())?.[0] ?? 1)
  await page.getByTestId('pages').waitFor()
  // Parts are added until there are six pages.
  for (const part of ['Drills', 'Sounding chords', 'Tab', 'Tab', 'Tab', 'Tab']) {
    await page.waitForTimeout(700)
    if ((await count()) >= 6) break
    await page.getByRole('button', { name: 'Add a part' }).click()
    await page.getByRole('menuitem', { name: part, exact: true }).click()
  }
  await page.waitForTimeout(700)
  const pages = await count()
  const save = async (button: string, name: string) => {
    const started = performance.now()
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: button }).click(),
    ])
    await file.saveAs(join(folder, name))
    return performance.now() - started
  }
  const pdf = await save('Save as PDF', 'x.pdf')
  await save('Lesson file', 'x.html')
  await page.close()
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, offline: true })
  const lesson = await context.newPage()
  const started = performance.now()
  await lesson.goto(`file://${join(folder, 'x.html')}`)
  await lesson.getByRole('button', { name: 'Play', exact: true }).click()
  await lesson.getByText(/Step [2-9] of/).waitFor()
  const opened = performance.now() - started
  await context.close()
  return [
    atMost(`PDF of ${pages} pages saved`, pdf, 's', 5),
    // The second step is heard a beat after the first: that beat is in it.
    atMost('lesson file of 48 measures opened and playing', opened, 's', 2),
  ]
}
