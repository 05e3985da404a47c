import { handFault } from '../../hand/grip/handRules.ts'
import { pressedOf } from '../../hand/grip/pressed.ts'
import { chordText } from '../../music/harmony/chordSymbol.ts'
import { kindSpans } from '../../instrument/hand.ts'
import type { Setup } from '../../instrument/setup.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import { isArrival, type Grip, type TabNote } from '../../document/tab.ts'
import type { Id } from '../../document/ids.ts'
import type { Provenance, TuneDoc } from '../../document/tune.ts'

/** What can be looked for by a word; anything else is looked for as a chord, a section or a word of the lyrics. */
export const FINDABLE = [
  'barre',
  'hammer-on',
  'pull-off',
  'slide',
  'bend',
  'harmonic',
  'grace',
  'muted',
  'stretch',
  'typed',
  'optional',
  'heard',
  'guessed',
  'my choice',
] as const
export type Findable = (typeof FINDABLE)[number]

/** A place on the page that was looked for. */
export interface Found {
  /** Index of the measure. */
  readonly measure: number
  readonly tick: number
  readonly what: string
}

/** Where a measure's material comes from, as it is called. */
const SOURCES: Readonly<Partial<Record<string, Provenance>>> = {
  heard: 'heard',
  guessed: 'guessed',
  'my choice': 'choice',
}

const isFindable = (word: string): word is Findable => (FINDABLE as readonly string[]).includes(word)

/**
 * Finds places on the page, once a moment, in order: notes sounded in a way (`slide`), grips (`barre`), a fret or string
 * (`fret 7`, `string 6`), a chord (`chord Bm`, or `Bm` alone), a section or a syllable.
 */
export function findOnPage(tune: TuneDoc, doc: ArrangementDoc | undefined, query: string): Found[] {
  const text = query
    .trim()
    .toLowerCase()
    .replace(/^all\s+/, '')
    .replace(/^measures\s+with\s+(an?\s+)?/, '')
  if (text === '') return []
  const indexOf = new Map(tune.measures.map((m, i) => [m.id, i]))
  const found: Found[] = []
  const add = (pos: { readonly measure: Id; readonly tick: number }, what: string) => {
    const measure = indexOf.get(pos.measure)
    const known = found.some((f) => f.measure === measure && f.tick === pos.tick)
    if (measure !== undefined && !known) found.push({ measure, tick: pos.tick, what })
  }
  const wanted = notesWanted(text, doc)
  for (const n of wanted ? (doc?.base.notes ?? []).filter(wanted) : []) add(n.pos, text)
  if (text === 'barre') for (const g of doc?.base.grips.filter(isBarre) ?? []) add(g.pos, text)
  if (text === 'stretch')
    for (const g of doc?.base.grips.filter((x) => isStretch(x, doc.setup)) ?? []) add(g.pos, text)
  const source = SOURCES[text]
  for (const m of tune.measures) if (source === m.provenance) add({ measure: m.id, tick: 0 }, text)
  if (!wanted && !isFindable(text)) {
    const chord = text.replace(/^chord\s+/, '')
    for (const c of tune.chords) {
      const names = [c.symbol, ...(c.parsed ? [chordText(c.parsed)] : [])].map((s) => s.toLowerCase())
      if (names.includes(chord)) add(c.pos, c.symbol)
    }
    for (const s of tune.sections)
      if (s.name.toLowerCase().includes(text)) add({ measure: s.measure, tick: 0 }, s.name)
    for (const e of tune.events) {
      const words = [e.lyric, ...(e.moreLyrics ?? [])].filter((w) => w !== undefined)
      const hit = words.find((w) => w.toLowerCase().replace(/-$/, '').includes(text))
      if (hit !== undefined) add(e.pos, hit)
    }
  }
  return found.sort((a, b) => a.measure - b.measure || a.tick - b.tick)
}

/** Which notes a word means; undefined for a word that is not about notes. */
function notesWanted(text: string, doc: ArrangementDoc | undefined): ((n: TabNote) => boolean) | undefined {
  const place = /^(fret|string)\s+(\d{1,2})$/.exec(text)
  if (place) return (n) => n.place[place[1] as 'fret' | 'string'] === Number(place[2])
  const typed = new Set(doc?.base.locks.filter((l) => l.field === 'typed').map((l) => l.target))
  const arrives = (attack: TabNote['attack']) => (n: TabNote) =>
    (n.attack === attack && isArrival(attack)) || (n.graces ?? []).some((g) => g.attack === attack)
  const ways: Readonly<Partial<Record<string, (n: TabNote) => boolean>>> = {
    'hammer-on': arrives('hammer'),
    'pull-off': arrives('pull'),
    slide: arrives('slide'),
    bend: (n) => n.bend !== undefined || n.attack === 'release',
    harmonic: (n) => n.place.harmonic !== undefined || n.place.artificial === true,
    grace: (n) => n.graces !== undefined,
    muted: (n) => n.attack === 'muted',
    typed: (n) => typed.has(n.id),
    optional: (n) => n.optional,
  }
  return ways[text] ?? (text.endsWith('s') ? ways[text.slice(0, -1)] : undefined)
}

/** A finger on several strings. */
const isBarre = ({ pressed }: Grip): boolean =>
  pressed.some((p, i) => pressed.some((q, k) => k > i && q.finger === p.finger && q.fret === p.fret))

/** A grip that is beyond what this hand reaches without being stretched. */
const isStretch = ({ pressed }: Grip, setup: Setup): boolean =>
  handFault(setup, kindSpans(setup.player.spans), pressedOf(pressed))?.kind === 'span'
