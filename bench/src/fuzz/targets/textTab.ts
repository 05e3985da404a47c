import { DEFAULT_PLAYER } from '@velvet-porch/core/instrument'
import { readTextTab, scoreOfTab, TabReadError } from '@velvet-porch/core/input'
import { readArrangementDoc, readTuneDoc } from '@velvet-porch/core/schema'
import { mutateText } from '../mutateText.ts'
import { loss, refusal, type Complaint, type FuzzTarget } from '../target.ts'
import { arrangedSeeds } from './seeds.ts'

const WORDS = [
  '-', '--', '|', '||', '|:', ':|', '64', '24', '12', '3h5', '5p3', '7/9', '7\\5', '7b9', '7b9r7', '5^(7)', '<12>', '5<17>', 'x', '(2)', '(x)',
  '~', '12~', 'e|', '\n', 'Capo 2\n', 'Time 0/4\n', 'time 6/8\n', 'q e e', 'C   G', 'Am', 'x2', 'PM---', '10', '007', '123', '‖', '*', ':',
] // prettier-ignore

/** As people type it: names or none, chords over it, techniques, bars in odd places. */
const TYPED = [
  'My tune\nTime 3/4\n\n     C           G\ne|---0---1---|-3-----3---|\nB|-1---1-----|-0---0-----|\nG|-----------|-----------|\nD|-----------|-----------|\nA|-3---------|-----------|\nE|-----------|-3---------|\n',
  'e|--0-2h3p2-0----|\nB|-3---------3-1-|\nG|---------------|\nD|---------------|\nA|-3-------------|\nE|---------------|\n\ne|-7b9r7-5/7-<12>|\nB|---------------|\nG|--x--x---(2)---|\nD|-0---0---------|\nA|-----------2---|\nE|---------------|\n',
  'E|-0-2-3-5-|-7-5-3-2-|\nA|---------|---------|\nD|-0---0---|-0---0---|\nG|-0---0---|-0---0---|\n',
]

/** Frets on one line of a tab, counted by their digits alone. */
const fretsOn = (line: string): number =>
  line
    .replace(/^\s*[A-Ga-g][#b]?\d?\s*(?=[|:-])/, '')
    .replace(/(\d)\^\(\d+\)/g, '$1')
    .replace(/(\d)<\d+>/g, '$1')
    .split(/\D+/)
    .filter(Boolean)
    .reduce((n, digits) => n + (digits.length === 1 ? 1 : digits.length === 2 && Number(digits) <= 24 && digits[0] !== '0' ? 1 : Math.ceil(digits.length / 2)), 0) // prettier-ignore

export const textTabTarget: FuzzTarget<string> = {
  name: 'text tab',
  get seeds() {
    return [...TYPED, ...arrangedSeeds().map((s) => s.text)]
  },
  mutate: (seed, chance) => mutateText(seed, TYPED, WORDS, chance),
  read(text) {
    const complaints: Complaint[] = []
    const read = readTextTab(text)
    try {
      const { tune, arrangement, problems } = scoreOfTab(read, 'tune', DEFAULT_PLAYER, 'New tune')
      try {
        readTuneDoc(JSON.parse(JSON.stringify(tune)))
        readArrangementDoc(JSON.parse(JSON.stringify(arrangement)), tune)
      } catch (error) {
        complaints.push(refusal((error as Error).message))
      }
      const { notes } = arrangement!.base
      const moments = notes.map((n) => `${n.pos.measure} ${n.pos.tick} ${n.place.string}`)
      if (new Set(moments).size < moments.length) complaints.push(loss('two frets on a string at once'))
      const found = notes.reduce((n, note) => n + 1 + (note.graces?.length ?? 0), 0)
      const signs = read.measures.reduce((n, m) => n + m.signs.length, 0)
      const said = [...read.problems, ...problems].some((p) => p.severity !== 'note')
      if (found < signs && !said) complaints.push(loss(`${signs - found} of ${signs} signs`))
    } catch (error) {
      if (!(error instanceof TabReadError)) throw error
    }
    complaints.push(...lostLines(text, read))
    return complaints
  },
}

/** Lines that were read as strings and gave fewer frets than stand on them, without a word on the system. */
function lostLines(text: string, read: ReturnType<typeof readTextTab>): Complaint[] {
  const lines = text.split(/\r\n?|\n|\u2028|\u2029/)
  const found = new Map<number, number>()
  const systems = new Map<number, number>()
  for (const m of read.measures) {
    for (const s of m.signs) {
      if (s.fret === undefined) continue
      const line = m.line + s.string - 1
      found.set(line, (found.get(line) ?? 0) + 1)
      systems.set(line, m.line)
    }
  }
  return [...found].flatMap(([line, frets]) => {
    const stand = fretsOn(lines[line - 1] ?? '')
    const first = systems.get(line)!
    const said = read.problems.some((p) => p.severity !== 'note' && p.line >= first && p.line < first + 12)
    return frets < stand && !said ? [loss(`${stand - frets} of ${stand} frets on line ${line}`)] : []
  })
}
