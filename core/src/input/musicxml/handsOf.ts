import type { Id } from '../../document/ids.ts'
import { hasSlideRoom, type SlideMark } from '../../document/marks.ts'
import type { Attack, GraceNote, TabNote } from '../../document/tab.ts'
import type { LeftFinger, PickingSign } from '../../instrument/hand.ts'
import { HARMONICS } from '../../instrument/harmonics.ts'
import { lastFret, type Place, type Setup } from '../../instrument/setup.ts'
import { notationsOf, type XmlNote } from './readMeasure.ts'
import { child, children, numberIn, textIn, type XmlElement } from './xmlTree.ts'

/** A note of the tab with what the staff beside it says of it. */
export interface Placed {
  readonly note: XmlNote
  readonly measure: number
  readonly place: Place
  /** The note itself, and the same note on the staff. */
  readonly elements: readonly XmlElement[]
  readonly event: Id | undefined
}

/** What both hands do at a note, and the short notes before it. */
export function handsOf(
  { note, place, elements }: Placed,
  placed: readonly Placed[],
  setup: Setup,
): Omit<TabNote, 'id' | 'role' | 'notationVoice' | 'dur' | 'pos' | 'place'> {
  const has = (group: string, name: string) => elements.some((e) => signs(e, group, name).length > 0)
  const other = (name: string) =>
    elements.some((e) => signs(e, 'technical', 'other-technical').some((t) => t.text === name))
  const graces = placed
    .filter((p) => p.note.isGrace && p.note.tick === note.tick && p.place.string === place.string)
    .map((p): GraceNote => ({
      place: p.place,
      left: fingerOf(p.elements, p.place),
      attack: joinTo(p.elements) ?? 'pluck',
      ...(isBracketed(p.elements) ? { optional: true as const } : {}),
    }))
  const bend = elements.flatMap((e) => signs(e, 'technical', 'bend'))[0]
  const bent = Math.min(4, Math.abs(numberIn(bend, 'bend-alter') ?? 0))
  const arrival = joinTo(elements)
  const bentTo = bend && bent > 0 && !child(bend, 'pre-bend') && !child(bend, 'release')
  const isJoined = elements.some((e) => ends(e, 'slur', 'stop'))
  const quickBend = bentTo && !isJoined && graces.length === 0
  const attack: Attack =
    arrival ??
    (bend && child(bend, 'release') && isJoined
      ? 'release'
      : bentTo
        ? 'bend'
        : elements.some((e) => textIn(e, 'notehead') === 'x')
          ? 'muted'
          : has('ornaments', 'tremolo')
            ? 'tremolo'
            : other('brush')
              ? 'brush'
              : other('bottleneck')
                ? 'bottle'
                : 'pluck')
  const slides: SlideMark[] = [
    ...(has('articulations', 'scoop') ? (['slideFromBelow'] as const) : []),
    ...(has('articulations', 'plop') ? (['slideFromAbove'] as const) : []),
    ...(has('articulations', 'doit') ? (['slideOffUp'] as const) : []),
    ...(has('articulations', 'falloff') ? (['slideOffDown'] as const) : []),
  ]
  const rolled =
    attack !== 'brush' && elements.some((e) => notationsOf(e).some((n) => child(n, 'arpeggiate')))
  const rings = elements.some((e) =>
    notationsOf(e).some(
      (n) =>
        children(n, 'other-notation').some((o) => o.text === 'let ring') ||
        children(n, 'tied').some((t) => t.attributes['type'] === 'let-ring'),
    ),
  )
  return {
    left: fingerOf(elements, place),
    right: pickingOf(elements),
    attack,
    optional: isBracketed(elements),
    ...(quickBend
      ? { graces: [{ place, left: fingerOf(elements, place), attack: 'pluck' as const }] }
      : graces.length > 0
        ? { graces }
        : {}),
    ...(bent > 0 && attack !== 'release' ? { bend: bent } : {}),
    ...(has('ornaments', 'wavy-line') ? { vibrato: true as const } : {}),
    ...(elements.some((e) => signs(e, 'articulations', 'other-articulation').some((o) => o.text === 'damp'))
      ? { damp: true as const }
      : {}),
    ...(has('articulations', 'accent') || has('articulations', 'strong-accent')
      ? { accent: true as const }
      : {}),
    ...(has('articulations', 'staccato') ? { staccato: true as const } : {}),
    ...(elements.some((e) => notationsOf(e).some((n) => child(n, 'fermata')))
      ? { fermata: true as const }
      : {}),
    ...(elements.some((e) => textIn(child(e, 'play'), 'mute') === 'palm') ? { palmMute: true as const } : {}),
    ...(rolled ? { rolled: true as const } : {}),
    ...(rings ? { letRing: true as const } : {}),
    ...Object.fromEntries(
      slides.filter((m) => hasSlideRoom(m, place, lastFret(setup, place.string))).map((m) => [m, true]),
    ),
  }
}

/** Signs of a note in a group of its notations. */
const signs = (note: XmlElement, group: string, name: string): XmlElement[] =>
  notationsOf(note).flatMap((n) => children(n, group).flatMap((g) => children(g, name)))

const isBracketed = (elements: readonly XmlElement[]): boolean =>
  elements.some((e) => child(e, 'notehead')?.attributes['parentheses'] === 'yes')

/** True where something that joins notes begins or ends at one. */
const ends = (note: XmlElement, name: string, type: 'start' | 'stop'): boolean =>
  notationsOf(note).some((n) => children(n, name).some((s) => s.attributes['type'] === type))

/** How the fretting hand sounds a note alone, where it does. */
function joinTo(elements: readonly XmlElement[]): 'hammer' | 'pull' | 'slide' | undefined {
  const stops = (name: string) =>
    elements.some((e) => signs(e, 'technical', name).some((s) => s.attributes['type'] === 'stop'))
  if (stops('hammer-on')) return 'hammer'
  if (stops('pull-off')) return 'pull'
  return elements.some((e) => ends(e, 'slide', 'stop') || ends(e, 'glissando', 'stop')) ? 'slide' : undefined
}

function fingerOf(elements: readonly XmlElement[], { fret }: Place): LeftFinger {
  const said = elements.flatMap((e) => signs(e, 'technical', 'fingering'))[0]?.text.toUpperCase()
  if (fret === 0 || said === undefined) return 0
  if (said === 'T') return 'T'
  const finger = Number(said)
  return finger === 1 || finger === 2 || finger === 3 || finger === 4 ? finger : 0
}

function pickingOf(elements: readonly XmlElement[]): PickingSign {
  const pluck = elements.flatMap((e) => signs(e, 'technical', 'pluck'))[0]?.text.toLowerCase()
  if (pluck === 'p' || pluck === 'i' || pluck === 'm' || pluck === 'a') return pluck
  if (elements.some((e) => signs(e, 'technical', 'down-bow').length > 0)) return 'down'
  return elements.some((e) => signs(e, 'technical', 'up-bow').length > 0) ? 'up' : 'none'
}

/** A place with the harmonic that is touched there. */
export function placeOf(string: number, fret: number, elements: readonly XmlElement[], setup: Setup): Place {
  const harmonic = elements.flatMap((e) => signs(e, 'technical', 'harmonic'))[0]
  if (!harmonic) return { string, fret }
  if (child(harmonic, 'artificial'))
    return fret > 0 && fret + 12 <= lastFret(setup, string)
      ? { string, fret, artificial: true }
      : { string, fret }
  const node = HARMONICS.find((h) => h.fret === fret)
  return node ? { string, fret, harmonic: node.parts } : { string, fret }
}
