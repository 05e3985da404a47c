import { present } from '../../invariant.ts'
import type { Finger, PlacedFinger } from '../../hand/moves/placedFinger.ts'
import type { PickingSign } from '../../instrument/hand.ts'
import { readBack } from '../text/template.ts'
import { ROW_SIGN, type Wording } from '../text/words/wording.ts'
import { fingerNamed, nameKey, ReplayError, type ReplayedNote } from './replayed.ts'

/** A row of single notes as the lesson words it. */
interface WordedRow {
  /** What is said before it: fingers that stay, what rings on. */
  readonly before: readonly string[]
  readonly string?: string
  readonly items: readonly string[]
}

/** A line that words a row of single notes; undefined where it words something else. */
export function rowIn(line: string, words: Wording): WordedRow | undefined {
  const said = line.replace(/\.$/, '').split('. ')
  const last = said.at(-1)!
  const read = readBack(words.row.string, last) ?? readBack(words.row.position, last)
  if (!read) return undefined
  const { string, items } = read
  return { before: said.slice(0, -1), ...(string ? { string } : {}), items: present(items).split(ROW_SIGN) }
}

/** The notes of a row: each puts its finger down and lifts the last one; what was said to stay stays. */
export function playedRow(
  { before, string, items }: WordedRow,
  hand: ReadonlyMap<Finger, PlacedFinger>,
  words: Wording,
): { count: string; note: ReplayedNote; down: Map<Finger, PlacedFinger> }[] {
  const names = before.flatMap((s) => readBack(words.hand.stays, s)?.fingers?.split(', ') ?? [])
  const kept = new Map<Finger, PlacedFinger>()
  for (const name of names) {
    const finger = fingerNamed(words, name)
    const on = hand.get(finger)
    if (!on) throw new ReplayError(`The ${name} is to stay and is not down: ${items.join(ROW_SIGN)}`)
    kept.set(finger, on)
  }
  return items.map((item) => {
    const { count, place, picking } = itemIn(item, words)
    const at =
      string === undefined
        ? (readBack(words.row.stringFret, place) ?? readBack(words.row.stringOpen, place))
        : (readBack(words.row.fret, place) ?? readBack(words.row.open, place))
    if (!at) throw new ReplayError(`No place: ${item}`)
    const own = Number(at.string ?? string)
    const fret = Number(at.fret ?? 0)
    const finger = at.finger === undefined ? undefined : fingerNamed(words, at.finger)
    if (finger !== undefined && kept.has(finger))
      throw new ReplayError(`The ${at.finger} is to stay and is needed: ${item}`)
    const down = new Map(kept)
    if (finger !== undefined) down.set(finger, { finger, fret, from: own, to: own })
    const note: ReplayedNote = {
      string: own,
      fret,
      ...(finger === undefined ? {} : { finger }),
      ...(picking === undefined ? {} : { picking: nameKey(words.picking, picking) as PickingSign }),
      attack: 'pluck',
      graces: [],
      marks: [],
    }
    return { count, note, down }
  })
}

/** An item of a row taken apart. Counts and places are parted where both can be read. */
function itemIn(item: string, words: Wording): { count: string; place: string; picking: string | undefined } {
  const picked = readBack(words.place.picked, item)
  const plain = picked ? present(picked.place) : item
  const named = readBack(words.place.named, plain)
  const text = named ? present(named.place) : plain
  const { row } = words
  for (let at = text.indexOf(' '); at >= 0; at = text.indexOf(' ', at + 1)) {
    const place = text.slice(at + 1)
    const reads = [row.stringFret, row.stringOpen, row.fret, row.open].some((t) => readBack(t, place))
    if (reads) return { count: text.slice(0, at), place, picking: picked?.picking }
  }
  throw new ReplayError(`No place: ${item}`)
}
