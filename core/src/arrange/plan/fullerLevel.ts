import { innerLine, MORE_OFTEN, type InnerRules, type Lines, type PlannedInner } from './innerLine.ts'
import type { PlannedBass } from './bassLine.ts'
import type { Turns } from '../../turns.ts'

/** Ways to play a little more than a level does by itself, the least first. Common practice, no source. */
const MORE: readonly ((rules: InnerRules) => InnerRules)[] = [
  (rules) => ({ ...rules, thick: rules.thick ? MORE_OFTEN[rules.thick] : 'changes' }),
  (rules) => ({ ...rules, ...(rules.double ? { double: DENSER[rules.double] } : {}) }),
  (rules) => ({
    ...rules,
    ...(rules.fill ? { fill: { ...rules.fill, gap: Math.max(0, rules.fill.gap - 1) } } : {}),
    ...(rules.chord ? { chord: { ...rules.chord, againIn: AGAIN_IN } } : {}),
    ...(rules.strums ? { strums: { ...rules.strums, gap: Math.max(0, rules.strums.gap - 1) } } : {}),
  }),
]

/** Beats of a note that leaves room for its chord once more. */
const AGAIN_IN = 3

const DENSER = { changes: 'strong', strong: 'beats', beats: 'halves', halves: 'all', all: 'all' } as const

/** What the further voices of a level are planned from; `down` counts levels below the one that is wanted. */
export interface LevelSource {
  readonly lines: Omit<Lines, 'bass'>
  readonly bass: readonly PlannedBass[]
  /** The bass of so many levels below. */
  readonly bassBelow: (down: number) => readonly PlannedBass[]
  readonly rulesAt: (m: number, down: number) => InnerRules | undefined
  /** What keeps measures together: they are all played alike or all fuller; undefined: left as they are. */
  readonly sectionOf: (m: number, down: number) => object | undefined
}

/**
 * The further voices of a level. A tune may leave no room for what a level adds to the one below it: no long note to be
 * filled, no beat between. There the level plays its next device, so that it is a level of its own.
 */
export function* fullerLevel(source: LevelSource, down = 0): Turns<PlannedInner[]> {
  const { rulesAt, sectionOf, bass, bassBelow } = source
  const lines = { ...source.lines, bass }
  let planned = yield* innerLine(lines, (m) => rulesAt(m, down))
  const section = (m: number) => sectionOf(m, down)
  const alike = new Set(lines.measures.flatMap((_, m) => section(m) ?? []))
  if (alike.size === 0) return planned
  const textOf = (line: PlannedLine) => textsOf(lines, line, section)
  const keepAlike = (own: Texts, below: Texts) => {
    for (const s of alike) if (own.get(s) !== below.get(s)) alike.delete(s)
  }
  const lowerBass = bassBelow(down + 1)
  keepAlike(textOf(bass), textOf(lowerBass))
  if (alike.size === 0) return planned
  const below = textOf(yield* fullerLevel({ ...source, bass: lowerBass }, down + 1))
  keepAlike(textOf(planned), below)
  const fuller = new Map<object, (rules: InnerRules) => InnerRules>()
  for (const more of MORE) {
    if (alike.size === 0) break
    for (const s of alike) fuller.set(s, more)
    planned = yield* innerLine(lines, (m) => {
      const rules = rulesAt(m, down)
      const change = fuller.get(section(m) ?? source)
      return rules && change ? change(rules) : rules
    })
    keepAlike(textOf(planned), below)
  }
  return planned
}

/** What is planned in each section, as a text that two plans are told apart by. */
type Texts = ReadonlyMap<object, string>

type PlannedLine = readonly (PlannedBass | PlannedInner)[]

function textsOf(
  { timeline, measures }: Pick<Lines, 'timeline' | 'measures'>,
  line: PlannedLine,
  sectionOf: (m: number) => object | undefined,
): Texts {
  const texts = new Map<object, string>()
  let at = 0
  measures.forEach((_, m) => {
    const end = timeline.starts[m + 1] ?? timeline.length
    const section = sectionOf(m)
    for (; at < line.length && line[at]!.start < end; at++) {
      const one = line[at]!
      const voices = 'voices' in one ? one.voices : 1
      if (section) texts.set(section, `${texts.get(section) ?? ''} ${one.start}${one.kind}${voices}`)
    }
  })
  return texts
}
