import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { guitarSetup } from '../../src/instrument/index.ts'
import { command, inputHash, redo, undo, type TuneDoc } from '../../src/document/index.ts'
import { arrangementOf, wholeTune } from '../../src/arrange/index.ts'
import { readArrangementDoc, readTuneDoc, SchemaError } from '../../src/schema/index.ts'
import { arrangeTune, CORPUS } from '../support/tunes.ts'

const tune = CORPUS[0]!

describe('commands', () => {
  it('undoing any run of commands gives the same content back, redoing too', () => {
    const edit = fc.oneof(
      fc.record({ kind: fc.constant('title' as const), text: fc.string({ minLength: 1, maxLength: 12 }) }),
      fc.record({ kind: fc.constant('drop' as const), at: fc.nat(30) }),
      fc.record({ kind: fc.constant('tempo' as const), bpm: fc.integer({ min: 30, max: 200 }) }),
    )
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 25 }), (edits) => {
        const commands = []
        let doc: TuneDoc = tune
        for (const [i, e] of edits.entries()) {
          const made = command(doc, `c${i}`, e.kind, (draft) => {
            if (e.kind === 'title') draft.title = e.text
            else if (e.kind === 'drop') draft.events.splice(e.at, 1)
            else draft.tempos[0]!.bpm = e.bpm
          })
          if (!made) continue
          doc = made.doc
          commands.push(made.command)
        }
        const after = doc
        for (const c of [...commands].reverse()) doc = undo(doc, JSON.parse(JSON.stringify(c)))
        expect({ ...doc, rev: 0 }).toEqual({ ...tune, rev: 0 })
        for (const c of commands) doc = redo(doc, c)
        expect({ ...doc, rev: 0 }).toEqual({ ...after, rev: 0 })
      }),
      { numRuns: 60 },
    )
  })

  it('a change of nothing is no command, and each command raises the revision', () => {
    expect(command(tune, 'c', 'same', (d) => void (d.title = tune.title))).toBeUndefined()
    const made = command(tune, 'c', 'rename', (d) => void (d.title = 'Other'))!
    expect(made.doc.rev).toBe(tune.rev + 1)
    expect(undo(made.doc, made.command).rev).toBe(tune.rev + 2)
  })
})

describe('documents from storage', () => {
  it('tunes and arrangements survive a round trip through JSON and the schema', () => {
    for (const t of CORPUS) {
      expect(readTuneDoc(JSON.parse(JSON.stringify(t)))).toEqual(t)
      const setup = guitarSetup(2)
      const regions = wholeTune(t, 'alternating-bass', 3)
      const { layer, plan } = arrangeTune(t, 'alternating-bass', 3, 2)
      const doc = arrangementOf('a', 'Version', t, setup, regions, { layer, transposed: plan.transposed })
      expect(readArrangementDoc(JSON.parse(JSON.stringify(doc)))).toEqual(doc)
    }
  })

  it('names the place that is wrong', () => {
    const broken = JSON.parse(JSON.stringify(tune)) as { measures: { length: number }[] }
    broken.measures[2]!.length = -1
    expect(() => readTuneDoc(broken)).toThrow(SchemaError)
    expect(() => readTuneDoc(broken)).toThrow(/measures\[2\]\.length/)
    expect(() => readTuneDoc({ ...tune, schema: 0 })).toThrow(/schema/)
    expect(() => readTuneDoc({ ...tune, surprise: 1 })).toThrow(/surprise/)
    expect(() => readArrangementDoc(null)).toThrow(SchemaError)
  })

  it('the input hash follows what the solver reads and nothing else', () => {
    const hash = (t: TuneDoc, capo = 0) => inputHash(t, guitarSetup(capo), wholeTune(t, 'melody-bass', 1))
    expect(hash({ ...tune, title: 'Other', rev: 9 })).toBe(hash(tune))
    expect(hash(tune, 1)).not.toBe(hash(tune))
    expect(hash({ ...tune, chords: tune.chords.slice(1) })).not.toBe(hash(tune))
    expect(inputHash(tune, guitarSetup(), wholeTune(tune, 'melody-bass', 2))).not.toBe(hash(tune))
  })

  it('the input hash goes by content: the order of keys, and what is undefined, are nothing to it', () => {
    const turned = (value: unknown): unknown =>
      Array.isArray(value)
        ? value.map(turned)
        : typeof value === 'object' && value !== null
          ? Object.fromEntries([
              ...Object.entries(value)
                .reverse()
                .map(([k, v]) => [k, turned(v)]),
              ['nothing', undefined],
            ])
          : value
    const regions = wholeTune(tune, 'melody-bass', 1)
    const hash = inputHash(tune, guitarSetup(), regions)
    const other = inputHash(
      turned(tune) as TuneDoc,
      turned(guitarSetup()) as ReturnType<typeof guitarSetup>,
      turned(regions) as typeof regions,
    )
    expect(other).toBe(hash)
  })

  it('ids of notes survive re-solving', () => {
    const ids = (level: 1 | 2) =>
      new Set(
        arrangeTune(tune, 'melody-bass', level)
          .layer.notes.filter((n) => n.role === 'melody')
          .map((n) => n.id),
      )
    expect(ids(2)).toEqual(ids(1))
    const all = arrangeTune(tune, 'alternating-bass', 3).layer
    expect(new Set([...all.notes, ...all.grips].map((x) => x.id)).size).toBe(
      all.notes.length + all.grips.length,
    )
  })
})
