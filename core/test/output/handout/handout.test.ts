import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { LANGUAGES } from '../../../src/messages/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { timelineOf, ticksAt, type Score } from '../../../src/document/index.ts'
import { chordShapes, lessonOf, USUAL_LESSON, type LessonSettings } from '../../../src/lesson/index.ts'
import {
  BLOCK_KINDS,
  handoutPieces,
  lessonFileHtml,
  neckSvg,
  noteKey,
  paginated,
  roomOn,
  tabSystems,
  usualHandout,
  USUAL_PAPER_LAYERS,
  type HandoutDoc,
} from '../../../src/output/handout/index.ts'
import { boxSvg } from '../../../src/output/engrave/boxPaper.ts'
import { readHandout, readPracticeLog } from '../../../src/schema/index.ts'
import { arrangedScore } from '../../support/score.ts'
import { CORPUS, tuneOf } from '../../support/tunes.ts'

const SUNG = tuneOf(
  'X:1\nT:Gate\nM:4/4\nL:1/4\nK:C\nP:Verse\n"C"cdec|"F"f2"G7"d2|"C"edcB|"C"c4|]\nw:one two three four five six se-ven eight nine ten\n',
)
const score = arrangedScore(SUNG, 'alternating-bass', 3)
const everything = (settings: LessonSettings = USUAL_LESSON): HandoutDoc => ({
  ...usualHandout('t'),
  settings,
  blocks: BLOCK_KINDS.map((kind) => ({
    id: kind,
    kind,
    ...(kind === 'notes' ? { text: 'Slow first.' } : {}),
  })),
})
const piecesOfAll = ({ tune, arrangement }: Required<Score>, settings = USUAL_LESSON) =>
  handoutPieces(everything(settings), lessonOf(tune, arrangement, settings))

/** What a reader sees: the text between the tags. */
const textOf = (html: string) =>
  html.replace(/<[^>]*>/g, ' ').replace(/&#(\d+);/g, (_, c: string) => String.fromCharCode(Number(c)))

describe('a handout', () => {
  it.each(LANGUAGES)('has every block in %s, nothing missing and nothing left unfilled', (language) => {
    const settings = { ...USUAL_LESSON, speech: { ...USUAL_LESSON.speech, language } }
    const pieces = piecesOfAll(score, settings)
    expect(new Set(pieces.map((p) => p.block))).toEqual(new Set(BLOCK_KINDS))
    for (const { html } of pieces) expect(textOf(html)).not.toMatch(/undefined|\{\w+\}|NaN|\[object/)
  })

  it('shows names with markup and quotes as they were typed', () => {
    const name = `<img src=x onerror="alert(1)"> & 'Nil'`
    const tune = {
      ...SUNG,
      title: name,
      composer: name,
      sections: SUNG.sections.map((s) => ({ ...s, name })),
    }
    const all = piecesOfAll({ tune, arrangement: score.arrangement })
      .map((p) => p.html)
      .join('')
    expect(all).not.toContain('<img')
    expect(textOf(all)).toContain(name)
  })

  it('the tab on paper has every fret of the tab once, measure by measure', () => {
    for (const tune of CORPUS.slice(0, 5)) {
      const own = arrangedScore(tune, 'melody-bass', 2)
      const options = {
        width: 688,
        layers: { ...USUAL_PAPER_LAYERS, fingers: false, rhythm: false },
        naming: 'letters',
      } as const
      const systems = tabSystems(own.tune, own.arrangement, options)
      const printed = systems.flatMap((s) =>
        [...s.svg.matchAll(/class="fr[^"]*"[^>]*>([^<]+)</g)].map((m) => m[1]!),
      )
      const plain = printed.map((t) => t.replace(/[()‹›]/g, '').replace(/&#\d+;/g, ''))
      expect(plain.sort()).toEqual(own.arrangement.base.notes.map((n) => String(n.place.fret)).sort())
      // Systems follow one another, and nothing stands beyond the paper.
      let next = 0
      for (const s of systems) {
        expect(s.from).toBe(next)
        next = s.to + 1
        const last = s.measures.at(-1)!
        expect(last.x + last.width).toBeLessThanOrEqual(688.5)
      }
      expect(next).toBe(tune.measures.length)
    }
  })

  it('says what the teacher says to a piece, where the plan comes to it', () => {
    const { tune, arrangement } = score
    const lesson = lessonOf(tune, arrangement, USUAL_LESSON)
    const noted = { [noteKey(tune, lesson.pieces[0]!)]: 'Soft <thumb>.' }
    const handout = { ...usualHandout('t'), blocks: [{ id: 'p', kind: 'plan' }] } as const
    const html = (notes: typeof noted | undefined) =>
      textOf(
        handoutPieces(handout, lesson, notes)
          .map((p) => p.html)
          .join(''),
      )
    expect(html(noted)).toContain('Soft <thumb>.')
    expect(html(undefined)).not.toContain('Soft')
  })

  it('takes the measures that are asked for', () => {
    const { tune, arrangement } = score
    const block = { id: 'x', kind: 'tab', from: 1, to: 2 } as const
    const html = handoutPieces(
      { ...usualHandout('t'), blocks: [block] },
      lessonOf(tune, arrangement, USUAL_LESSON),
    )
    const measures = html.flatMap((p) =>
      [...p.html.matchAll(/data-measure="(\d+)"/g)].map((m) => Number(m[1])),
    )
    expect(measures).toEqual([1, 2])
  })

  it('shapes hold what the chord is played with, and no chord has a shape that is part of another of its own', () => {
    for (const tune of CORPUS.slice(0, 5)) {
      const { arrangement } = arrangedScore(tune, 'arpeggio', 4)
      const shapes = chordShapes(tune, arrangement)
      expect(shapes.length).toBeGreaterThan(0)
      const texts = shapes.map(
        (s) => `${JSON.stringify(s.chord)} ${s.held.frets.join()} ${s.held.fingers.join()}`,
      )
      expect(new Set(texts).size).toBe(texts.length)
      for (const s of shapes)
        for (const string of s.struck.flatMap((m) => m.strings))
          expect(s.held.frets[string - 1]).not.toBe(undefined)
    }
  })

  it('words stand in their order with their chords', () => {
    const [, ...sung] = handoutPieces(
      { ...usualHandout('t'), blocks: [{ id: 'l', kind: 'lyrics' }] },
      lessonOf(score.tune, score.arrangement, USUAL_LESSON),
    )
    const text = textOf(sung.map((p) => p.html).join('')).replace(/\s+/g, ' ')
    expect(text).toMatch(/C one two three four F five G7 six C seven eight nine C ten/)
  })
})

describe('drawings of the hand', () => {
  const xOf = (svg: string, finger: string) =>
    Number(new RegExp(`class="dl" x="([\\d.]+)"[^>]*>${finger}<`).exec(svg)?.[1])
  it('a chord box has its fingers, mirrored for the left hand', () => {
    // C: from the lowest string x 3 2 0 1 0 with ring, middle and index finger (any primer).
    const held = { frets: [0, 1, 0, 2, 3, null], fingers: [0, 1, 0, 2, 3, 0] } as const
    const right = boxSvg(held, false, 'C')
    const left = boxSvg(held, true, 'C')
    expect(xOf(right, '3')).toBeLessThan(xOf(right, '2'))
    expect(xOf(right, '2')).toBeLessThan(xOf(right, '1'))
    expect(xOf(left, '1')).toBeLessThan(xOf(left, '3'))
    for (const svg of [right, left]) {
      expect(svg.match(/class="op"/g)).toHaveLength(2)
      expect(svg.match(/×/g)).toHaveLength(1)
    }
  })

  it('the neck has every finger once, where it is, and frets that narrow', () => {
    const fingers = [
      { finger: 1, fret: 5, from: 1, to: 6, state: 'stays' },
      { finger: 3, fret: 7, from: 5, to: 5, state: 'lands' },
    ] as const
    const svg = neckSvg(guitarSetup(), fingers, [5], { width: 210, height: 300 })
    expect([...svg.matchAll(/class="nl (\w+)"[^>]*>(\w)</g)].map((m) => [m[1], m[2]])).toEqual([
      ['stays', '1'],
      ['lands', '3'],
    ])
    expect(svg.match(/class="nb stays"/g)).toHaveLength(1)
    const frets = [...svg.matchAll(/d="M26 ([\d.]+)H/g)].map((m) => Number(m[1]))
    const gaps = frets.slice(1).map((y, i) => y - frets[i]!)
    gaps.slice(1).forEach((g, i) => expect(g).toBeLessThan(gaps[i]!))
  })
})

describe('pages', () => {
  const piece = fc.record({
    height: fc.integer({ min: 1, max: 700 }),
    heads: fc.constantFrom(undefined, true as const),
  })
  it('hold every piece once and in order, none too full, no heading alone at a foot', () => {
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 40 }), (list) => {
        const pieces = list.map((p) => ({ height: p.height, ...(p.heads ? { heads: true as const } : {}) }))
        const pages = paginated(pieces, 900)
        expect(pages.flat()).toEqual(pieces.map((_, i) => i))
        for (const page of pages) {
          const height = page.reduce((sum, i) => sum + pieces[i]!.height, 0)
          const body = page.filter((i) => !pieces[i]!.heads)
          if (body.length > 1) expect(height).toBeLessThanOrEqual(900)
          const last = page.at(-1)!
          if (pieces[last]!.heads) expect(last).toBe(pieces.length - 1)
        }
      }),
    )
  })

  it('a page has room for what is printed on it', () => {
    expect(roomOn('a4')).toBeGreaterThan(roomOn('letter'))
    expect(roomOn('letter')).toBeGreaterThan(800)
  })
})

describe('the lesson file', () => {
  it('is one page without links, in which nothing of a name runs', () => {
    const title = `</script><script>alert(1)</script><!--`
    const { tune, arrangement } = score
    const data = { tune: { ...tune, title }, doc: arrangement, settings: USUAL_LESSON, notes: { a: title } }
    const html = lessonFileHtml(data, 'const s = "</script>"', 'p{}')
    expect(html.match(/<script/g)).toHaveLength(2)
    expect(html.match(/<\/script>/g)).toHaveLength(2)
    expect(html).not.toMatch(/(src|href)=|https?:\/\/(?!www\.w3\.org)/)
    const json = /<script type="application\/json" id="data">(.*?)<\/script>/s.exec(html)![1]!
    const read = JSON.parse(json) as typeof data
    expect(read.tune.title).toBe(title)
    expect(read.doc.base.notes).toEqual(arrangement.base.notes)
    expect(read.tune.abc).toBeUndefined()
  })
})

describe('what is kept and read back', () => {
  it('a handout is checked, and what is wrong is named', () => {
    expect(readHandout(everything())).toEqual(everything())
    expect(() => readHandout({ ...everything(), paper: 'a3' })).toThrow(/paper/)
    const twice = [
      { id: 'a', kind: 'tab' },
      { id: 'a', kind: 'tab' },
    ]
    expect(() => readHandout({ ...everything(), blocks: twice })).toThrow(/blocks/)
  })

  it('a practice log is checked, and what is wrong is named', () => {
    const entry = { day: '2026-11-26', piece: 1, bpm: 60, clean: 3, minutes: 10, note: '' }
    const log = { format: 'velvet-porch-practice-log', version: 1, tune: 't', title: 'x', entries: [entry] }
    expect(readPracticeLog(log)).toEqual(log)
    expect(() => readPracticeLog({ ...log, entries: [{ ...entry, day: 'today' }] })).toThrow(
      /entries\[0\].day/,
    )
    expect(() => readPracticeLog('rubbish')).toThrow(/not a practice log/)
  })
})

describe('time on paper', () => {
  it('stems stand under every onset', () => {
    const { tune, arrangement } = score
    const systems = tabSystems(tune, arrangement, {
      width: 688,
      layers: USUAL_PAPER_LAYERS,
      naming: 'letters',
    })
    const timeline = timelineOf(tune.measures)
    const onsets = new Set(arrangement.base.notes.map((n) => ticksAt(timeline, n.pos)))
    const long = arrangement.base.notes.filter((n) => n.dur.ticks >= 4 * 10_080).length
    const stems = systems.flatMap((s) => s.svg.match(/class="st"/g) ?? []).length
    expect(stems).toBeGreaterThanOrEqual(onsets.size - long)
    expect(stems).toBeLessThanOrEqual(onsets.size)
  })
})
