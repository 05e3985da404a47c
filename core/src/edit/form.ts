import { knownIn } from '../invariant.ts'
import { LIMITS } from '../document/limits.ts'
import { unfold } from '../document/form/unfold.ts'
import type { Measure, Section, TuneDoc } from '../document/tune.ts'
import { done, refused, type Edited, type MeasureEdit } from './edited.ts'
import type { Score } from '../document/score.ts'
import { freshIds } from './freshIds.ts'
import { writtenOut } from './writtenOut.ts'

type FormEdit = Extract<
  MeasureEdit,
  { do: 'section' | 'repeat' | 'ending' | 'sign' | 'jump' | 'provenance' | 'writeOut' }
>

/** Passes that an ending may be for. */
export const MOST_PASSES = 9

/** Shapes the form: sections, repeats, endings, signs and jumps, where the material comes from. */
export function editForm(score: Score, edit: FormEdit): Edited {
  const { tune } = score
  const known = (index: number) => Number.isInteger(index) && index >= 0 && index < tune.measures.length
  const set = (measures: readonly Measure[]) => followable(score, { ...tune, measures })
  switch (edit.do) {
    case 'section':
      if (edit.name.length > LIMITS.sectionName)
        return refused(
          'textLong',
          { most: LIMITS.sectionName },
          { ...edit, name: edit.name.slice(0, LIMITS.sectionName) },
        )
      return known(edit.measure)
        ? done({ ...score, tune: withSection(tune, edit.measure, edit.name) })
        : refused('noSuchMeasure')
    case 'provenance': {
      if (!known(edit.from) || !known(edit.to)) return refused('noSuchMeasure')
      const { from, to, provenance } = edit
      return set(tune.measures.map((m, i) => (i >= from && i <= to ? { ...m, provenance } : m)))
    }
    case 'repeat': {
      if (!known(edit.from) || !known(edit.to) || edit.to < edit.from) return refused('noSuchMeasure')
      return repeat(tune, edit, set)
    }
    case 'ending': {
      if (!known(edit.from) || !known(edit.to) || edit.to < edit.from) return refused('noSuchMeasure')
      return ending(tune, edit, set)
    }
    case 'sign': {
      if (!known(edit.measure)) return refused('noSuchMeasure')
      const { sign, on } = edit
      return set(
        tune.measures.map((m, i): Measure => {
          if (i !== edit.measure) return m
          const { [sign]: _, ...plain } = m
          return on ? { ...plain, [sign]: true } : plain
        }),
      )
    }
    case 'jump': {
      if (!known(edit.measure)) return refused('noSuchMeasure')
      const { jump } = edit
      return set(
        tune.measures.map((m, i): Measure => {
          // A page is sent back once.
          const { jump: _, ...plain } = m
          return i === edit.measure && jump ? { ...plain, jump } : jump || i === edit.measure ? plain : m
        }),
      )
    }
    case 'writeOut':
      return done(writtenOut(score))
  }
}

/** Takes a form only if it can be followed to its end. */
function followable(score: Score, tune: TuneDoc): Edited {
  const before = unfold(score.tune.measures).problems.length
  const { problems } = unfold(tune.measures)
  if (problems.length <= before) return done({ ...score, tune })
  return refused(problems.some((p) => p.code === 'form.endless') ? 'endless' : 'noSign')
}

function repeat(
  tune: TuneDoc,
  { from, to, on }: Extract<FormEdit, { do: 'repeat' }>,
  set: (measures: readonly Measure[]) => Edited,
): Edited {
  if (!on) {
    return set(
      tune.measures.map((m, i) =>
        i >= from && i <= to ? { ...m, repeatStart: false, repeatEnd: 1, endings: [] } : m,
      ),
    )
  }
  const crosses = tune.measures.some(
    (m, i) =>
      (i > from && i <= to && m.repeatStart) ||
      (i >= from && i < to && m.repeatEnd > 1 && m.endings.length === 0),
  )
  if (crosses) return refused('repeatAcross', {}, { do: 'repeat', from, to, on: false })
  return set(
    tune.measures.map((m, i) => {
      const starts = i === from ? { ...m, repeatStart: from > 0 } : m
      return i === to ? { ...starts, repeatEnd: Math.max(2, m.repeatEnd) } : starts
    }),
  )
}

/**
 * An ending over some measures. One that is not the last goes back: its repeat sign is written with it; the ending that
 * stands behind it is the next pass.
 */
function ending(
  tune: TuneDoc,
  { from, to, passes }: Extract<FormEdit, { do: 'ending' }>,
  set: (measures: readonly Measure[]) => Edited,
): Edited {
  const own = [...new Set(passes)].sort((a, b) => a - b)
  if (own.some((p) => !Number.isInteger(p) || p < 1 || p > MOST_PASSES)) return refused('endings')
  if (own.length === 0)
    return set(tune.measures.map((m, i) => (i >= from && i <= to ? { ...m, endings: [], repeatEnd: 1 } : m)))
  // A neighbour ending must be for other passes.
  const others = [...endingsAround(tune, from, -1), ...endingsAround(tune, to, 1)]
  if (others.some((p) => own.includes(p))) {
    const free = [1, 2, 3, 4].find((p) => !others.includes(p)) ?? MOST_PASSES
    return refused('endings', {}, { do: 'ending', from, to, passes: [free] })
  }
  const most = own.at(-1)!
  const isLast = others.some((p) => p < most)
  return set(
    tune.measures.map((m, i): Measure => {
      if (i < from || i > to) return m
      const goesBack = i === to && !isLast
      return { ...m, endings: own, repeatEnd: goesBack ? most + 1 : 1 }
    }),
  )
}

/** Passes of the endings that stand right beside a measure. */
function endingsAround(tune: TuneDoc, at: number, step: 1 | -1): number[] {
  const found: number[] = []
  for (let i = at + step; tune.measures[i]?.endings.length; i += step)
    found.push(...tune.measures[i]!.endings)
  return found
}

/** A section that begins at a measure; an empty name takes it away. */
function withSection(tune: TuneDoc, index: number, name: string): TuneDoc {
  const { id } = tune.measures[index]!
  const text = name.trim()
  const before = tune.sections.find((s) => s.measure === id)
  const others = tune.sections.filter((s) => s !== before)
  if (text === '') return { ...tune, sections: others }
  const section: Section = { id: before?.id ?? freshIds(tune).section(), name: text, measure: id }
  const indexOf = new Map(tune.measures.map((m, i) => [m.id, i]))
  const sections = [...others, section].sort(
    (a, b) => knownIn(indexOf, a.measure) - knownIn(indexOf, b.measure),
  )
  return { ...tune, sections }
}
