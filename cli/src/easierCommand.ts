import { measureNumbers, type Ornament } from '@velvet-porch/core/document'
import { versionsByEffort, stretchByCapo } from '@velvet-porch/core/arrange'
import { finish } from '@velvet-porch/core/turns'
import { askedFrom } from './askedFrom.ts'
import { command, withArrangeOptions, type ArrangeValues } from './options.ts'
import { tuneFrom } from './tuneFrom.ts'
import { UsageError, wholeNumber } from './usage.ts'
import { changeText, notesText } from './versionText.ts'

interface Values extends ArrangeValues {
  readonly ornament: string
  readonly measures?: string
  readonly json?: boolean
}

/** `porch easier`: versions of a tune or of some measures, ordered by effort, with what each changes. */
export const easierCommand = withArrangeOptions(
  command('easier', 'file.abc', 'Lists simpler versions, ordered by effort, with what each changes.'),
  '3',
)
  .option('--ornament <0-3>', 'how much the fretting hand sounds alone', '1')
  .option('--measures <measures>', 'one measure or some, as 5 or 5-8; left out: all')
  .option('--json', 'prints one JSON object')
  .action(run)

function run(file: string, values: Values): void {
  const found = tuneFrom(file, values)
  const { tune } = found
  const { style, level, setup, regions: asked } = askedFrom(values, found)
  const ornament = wholeNumber(values.ornament, 0, 3, 'ornament') as Ornament
  const regions = asked(tune).map((r) => ({ ...r, ornament }))
  const range = rangeFrom(values.measures, measureNumbers(tune.measures))
  const versions = finish(versionsByEffort(tune, setup, regions, [], range))
  const now = versions.find((r) => r.changes.length === 0)
  if (!now) throw new UsageError(`${file}: this cannot be arranged in ${style}, level ${level}.`)
  const ids = new Set(tune.measures.slice(range.from, range.to + 1).map((m) => m.id))
  const capos = stretchByCapo(
    setup,
    now.layer.grips.filter((g) => ids.has(g.pos.measure)),
  )
  if (values.json) {
    const plain = versions.map(({ layer: _, ...r }) => r)
    process.stdout.write(`${JSON.stringify({ rungs: plain, capos })}\n`)
    return
  }
  for (const r of versions) {
    const what = r === now ? 'as it is' : r.changes.map(changeText).join(', ')
    const ceiling = r.ceiling === undefined ? '' : `, up to ${r.ceiling} a minute`
    const notes = r === now ? '' : `; ${notesText(r, now)}`
    process.stdout.write(
      `${r.effort.toFixed(2).padStart(6)}  ${what}: stretch ${r.stretchMm} mm, ${r.barres} barres${ceiling}${notes}\n`,
    )
  }
  process.stdout.write(
    `Widest stretch with the capo higher: ${capos.map((c) => `${c.capo}: ${c.mm} mm`).join(', ')}\n`,
  )
}

/** "5-8" or "5", by the numbers on the page; absent: all. */
function rangeFrom(text: string | undefined, numbers: readonly number[]): { from: number; to: number } {
  if (text === undefined) return { from: 0, to: numbers.length - 1 }
  const [, first, last] = /^(\d+)(?:-(\d+))?$/.exec(text) ?? []
  const from = numbers.indexOf(Number(first))
  const to = numbers.lastIndexOf(Number(last ?? first))
  if (from < 0 || to < from)
    throw new UsageError(`--measures "${text}" is not on the page; write 5 or 5-8, up to ${numbers.at(-1)}.`)
  return { from, to }
}
