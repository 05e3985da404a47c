import { beforeAll, describe, expect, it } from 'vitest'
import { guitarSetup } from '../../src/instrument/index.ts'
import {
  commandTo,
  inputHash,
  redo,
  undo,
  type ArrangementDoc,
  type Command,
  type Score,
  type Style,
} from '../../src/document/index.ts'
import { applyEdit, type EditCommand } from '../../src/edit/index.ts'
import { arrangedScore } from '../support/score.ts'
import { CORPUS, tuneOf } from '../support/tunes.ts'
import { ALL_EDITS, Dice, randomEdit } from './randomEdit.ts'
import { scoreFaults } from './scoreFaults.ts'

type Arranged = Score & { readonly arrangement: ArrangementDoc }

const STYLES: readonly Style[] = [
  'melody-bass',
  'alternating-bass',
  'chord-melody',
  'cross-string',
  'arpeggio',
  'double-stops',
  'bass-tune',
]
const LENGTH = 260

const opened = (seed: number): Arranged =>
  arrangedScore(CORPUS[seed % CORPUS.length]!, STYLES[seed % STYLES.length]!, 3, guitarSetup(seed % 3))

interface Step {
  readonly edit: EditCommand
  readonly tune?: Command
  readonly arrangement?: Command
}

/** A long afternoon of editing: every step as a command on both documents, checked as it goes. */
function edited(seed: number) {
  const dice = new Dice(seed * 7919 + 1)
  const opening = opened(seed)
  let score = opening
  const steps: Step[] = []
  const faults: string[] = []
  const refusals = new Map<string, number>()
  for (let i = 0; i < LENGTH; i++) {
    const edit = randomEdit(ALL_EDITS[(i * 11 + seed) % ALL_EDITS.length]!, score, dice)
    const before = score
    const result = applyEdit(score, edit)
    if (!result.ok) {
      const why = `${edit.do}: ${result.refusal.reason}`
      refusals.set(why, (refusals.get(why) ?? 0) + 1)
      continue
    }
    const tune = commandTo(before.tune, `${i}`, edit.do, result.score.tune)
    const tab = commandTo(before.arrangement, `${i}`, edit.do, result.score.arrangement!)
    score = { tune: tune?.doc ?? before.tune, arrangement: tab?.doc ?? before.arrangement }
    steps.push({
      edit,
      ...(tune ? { tune: tune.command } : {}),
      ...(tab ? { arrangement: tab.command } : {}),
    })
    const found = scoreFaults(score, i % 10 === 0 || i === LENGTH - 1)
    if (found.length > 0) {
      faults.push(`step ${i} ${JSON.stringify(edit).slice(0, 160)}: ${found.slice(0, 3).join('; ')}`)
      if (faults.length > 3) break
    }
  }
  return { opening, score, steps, faults, refusals }
}

/** What a document says, without the count of its revisions. */
const said = ({ tune, arrangement }: Arranged) =>
  JSON.parse(
    JSON.stringify({ tune: { ...tune, rev: 0 }, arrangement: { ...arrangement, rev: 0 } }),
  ) as unknown

const SEEDS = [1, 2, 3, 4, 5, 6, 7, 8]

describe('random edits', () => {
  const runs: ReturnType<typeof edited>[] = []
  beforeAll(() => {
    for (const seed of SEEDS) runs.push(edited(seed))
  }, 120_000)

  it.each(SEEDS.map((_, i) => i))('leave a score that is whole after every step (run %i)', (i) => {
    expect(runs[i]!.faults).toEqual([])
  })

  it('are mostly accepted, every kind of them often', () => {
    const all = SEEDS.length * LENGTH
    const accepted = runs.flatMap((r) => r.steps)
    const why = Object.fromEntries(runs.flatMap((r) => [...r.refusals]))
    expect(accepted.length / all, JSON.stringify(why)).toBeGreaterThanOrEqual(0.8)
    for (const kind of ALL_EDITS)
      expect(accepted.filter((s) => s.edit.do === kind).length, kind).toBeGreaterThanOrEqual(20)
  })

  it.each(SEEDS.map((_, i) => i))(
    'are taken back to the identical opening, and brought again (run %i)',
    (i) => {
      const { opening, score, steps } = runs[i]!
      let at = score
      for (const s of [...steps].reverse())
        at = {
          tune: s.tune ? undo(at.tune, s.tune) : at.tune,
          arrangement: s.arrangement ? undo(at.arrangement, s.arrangement) : at.arrangement,
        }
      // The text of a tune is written anew by the first edit; all else must be as it was.
      expect(said(at)).toEqual(said(opening))
      for (const s of steps)
        at = {
          tune: s.tune ? redo(at.tune, s.tune) : at.tune,
          arrangement: s.arrangement ? redo(at.arrangement, s.arrangement) : at.arrangement,
        }
      expect(said(at)).toEqual(said(score))
    },
  )

  it('keep the text of the tune true to it', () => {
    for (const { score } of runs) {
      const read = tuneOf(score.tune.abc!.text)
      expect(read.measures.map((m) => m.length)).toEqual(score.tune.measures.map((m) => m.length))
      const sounds = (t: typeof read) =>
        t.events.filter((e) => e.voice === 0 && e.pitch).reduce((n, e) => n + e.dur.ticks, 0)
      expect(sounds(read)).toBe(sounds(score.tune))
    }
  })

  it('of the tab alone leave it an answer to the tune', () => {
    const opening = opened(3)
    const note = opening.arrangement.base.notes.find((n) => n.role === 'bass')!
    const result = applyEdit(opening, { do: 'mark', note: note.id, mark: 'accent', on: true })
    if (!result.ok) throw new Error(result.refusal.reason)
    const { tune, arrangement } = result.score
    expect(inputHash(tune, arrangement!.setup, arrangement!.regions, arrangement!.base.locks)).toBe(
      arrangement!.inputHash,
    )
  })
})
