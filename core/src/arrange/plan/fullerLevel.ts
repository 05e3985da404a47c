import { innerLine, type InnerRules, type Lines, type PlannedInner } from './innerLine.ts'
import type { PlannedBass } from './bassLine.ts'
import type { Turns } from '../../turns.ts'

/** Ways to play a little more than a level does by itself, the least first. Common practice, no source. */
const MORE: readonly ((rules: InnerRules) => InnerRules)[] = [
  (rules) => ({ ...rules, thick: rules.thick ? MORE_OFTEN[rules.thick] : 'changes' }),
  (rules) => ({ ...rules, ...(rules.double ? { double: DENSER[rules.double] } : {}) }),
  (rules) => ({
    ...rules,
    ...(rules.fill ? { fill: { ...rules.fill, gap: Math.max(0, rules.fill.gap - 1) } } : {}),
  }),
]

const MORE_OFTEN = { changes: 'beats', beats: 'halves', halves: 'halves' } as const
const DENSER = { changes: 'strong', strong: 'beats', beats: 'halves', halves: 'all', all: 'all' } as const

/** What the further voices of a level are planned from; `down` counts levels below the one that is wanted. */
export interface LevelSource {
  readonly lines: Omit<Lines, 'bass'>
  readonly bassAt: (down: number) => readonly PlannedBass[]
  readonly rulesAt: (m: number, down: number) => InnerRules | undefined
  /** What keeps measures together: they are all played alike or all fuller; undefined: left as they are. */
  readonly sectionOf: (m: number, down: number) => object | undefined
}

/**
 * The further voices of a level. A tune may leave no room for what a level adds to the one below it: no long note to be
 * filled, no beat between. There the level plays its next device, so that it is a level of its own.
 */
export function* fullerLevel(source: LevelSource, down = 0): Turns<PlannedInner[]> {
  const { rulesAt, sectionOf } = source
  const lines = { ...source.lines, bass: source.bassAt(down) }
  let planned = yield* innerLine(lines, (m) => rulesAt(m, down))
  const under = { ...source.lines, bass: source.bassAt(down + 1) }
  const section = (m: number) => sectionOf(m, down)
  const [bass, bassUnder] = [lines, under].map(({ bass }) => textOf(lines, bass, section))
  const alike = new Set(lines.measures.flatMap((_, m) => section(m) ?? []))
  const keepAlike = (a: Texts | undefined, b: Texts | undefined) => {
    for (const s of alike) if (a?.get(s) !== b?.get(s)) alike.delete(s)
  }
  keepAlike(bass, bassUnder)
  if (alike.size === 0) return planned
  const below = textOf(lines, yield* fullerLevel(source, down + 1), section)
  keepAlike(textOf(lines, planned, section), below)
  const fuller = new Map<object, (rules: InnerRules) => InnerRules>()
  for (const more of MORE) {
    if (alike.size === 0) break
    for (const s of alike) fuller.set(s, more)
    planned = yield* innerLine(lines, (m) => {
      const rules = rulesAt(m, down)
      const change = fuller.get(section(m) ?? source)
      return rules && change ? change(rules) : rules
    })
    keepAlike(textOf(lines, planned, section), below)
  }
  return planned
}

/** What is planned in each section, as a text that two plans are told apart by. */
type Texts = ReadonlyMap<object, string>

function textOf(
  { timeline, measures }: Pick<Lines, 'timeline' | 'measures'>,
  line: readonly { readonly start: number; readonly kind: string; readonly voices?: number }[],
  sectionOf: (m: number) => object | undefined,
): Texts {
  const texts = new Map<object, string>()
  let at = 0
  measures.forEach((_, m) => {
    const end = timeline.starts[m + 1] ?? timeline.length
    const section = sectionOf(m)
    for (; at < line.length && line[at]!.start < end; at++) {
      const { start, kind, voices = 1 } = line[at]!
      if (section) texts.set(section, `${texts.get(section) ?? ''} ${start}${kind}${voices}`)
    }
  })
  return texts
}
