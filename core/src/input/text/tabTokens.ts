import { present } from '../../invariant.ts'
import { HELD_SIGN } from '../../output/text/tabSigns.ts'

/** How a fret in a plain-text tab is reached from the one before it on its string. */
export type Lead = 'hammer' | 'pull' | 'slide' | 'bend' | 'release'

/** A sign on one string of a system: where it stands, and what it says. Columns count from the row's start. */
export interface TabToken {
  readonly string: number
  readonly column: number
  /** Column behind its last character. */
  readonly end: number
  /** Absent for a muted string. */
  readonly fret?: number
  readonly lead?: Lead
  readonly muted?: true
  readonly optional?: true
  readonly harmonic?: true
  readonly artificial?: true
  readonly vibrato?: true
  /** Stopped beside the fret by so many cents. */
  readonly offsetCents?: number
  /** Struck earlier: the string sounds on. */
  readonly held?: true
  /** The way of a slide before it, where its sign says one: up to it from below, or down from above. */
  readonly slidUp?: boolean
  /** A slide behind it that leads to no fret beside it: the finger goes on up or down the string. */
  readonly off?: 'up' | 'down'
  /** Sounds as this fret would: the string is up before the stroke, or bent up to it. */
  readonly soundsAs?: number
}

/** A character that means nothing here. */
export interface Stray {
  readonly string: number
  readonly column: number
  readonly text: string
}

const SIGN =
  /(?<lead>[hHpPbBrRsS/\\]?)(?:(?<pre>\d{1,2})\^\((?<up>\d{1,2})\)|(?<stop>\d{1,2})<(?<node>\d{1,2})>|<(?<harm>\d{1,2})>|\((?<mutedMaybe>[xX])\)|\(<(?<harmMaybe>\d{1,2})>\)|\((?<maybe>\d{1,2})\)|(?<muted>[xX])|(?<fret>\d{1,2}))(?<shake>~*)(?:\{(?<cents>[-+]?\d{1,2})\})?(?:(?<off>[/\\])(?![\d(<xX]))?/y

/** No neck has more frets: two digits beyond it are two frets that were typed without a dash between them. */
export const FURTHEST_FRET = 24

const LEADS: Readonly<Record<string, Lead>> = {
  h: 'hammer',
  p: 'pull',
  b: 'bend',
  r: 'release',
  s: 'slide',
  '/': 'slide',
  '\\': 'slide',
}

/** What stands on one string of a system. */
export interface RowSigns {
  readonly tokens: readonly TabToken[]
  readonly strays: readonly Stray[]
  /** Digits that were taken for two frets. */
  readonly parted: readonly Stray[]
}

/** By how much a bend goes whose text says no fret: a whole tone, as most do; `1/2` and `½` say a half. No source. */
const WHOLE_BEND = 2

/** A bend behind a fret that names no fret to bend to: `7b`, `7b1/2`, `7bfull`. */
function bendAt(
  row: string,
  at: number,
  before: TabToken | undefined,
): { readonly length: number; readonly to: number } | undefined {
  const found = /^b(?:(full)|(½|1\/2))?(?![\d(<])/i.exec(row.slice(at))
  if (!found || before?.end !== at || before.fret === undefined || before.muted) return undefined
  return { length: found[0].length, to: before.fret + (found[2] === undefined ? WHOLE_BEND : 1) }
}

/** Reads the signs of one string from left to right. */
export function tokensOf(row: string, string: number): RowSigns {
  const tokens: TabToken[] = []
  const strays: Stray[] = []
  const parted: Stray[] = []
  for (let at = 0; at < row.length;) {
    const bend = bendAt(row, at, tokens.at(-1))
    if (bend) {
      tokens.push({
        string,
        column: at,
        end: at + bend.length,
        lead: 'bend',
        fret: bend.to,
        soundsAs: bend.to,
      })
      at += bend.length
      continue
    }
    SIGN.lastIndex = at
    const g = SIGN.exec(row)?.groups
    if (g) {
      const end = SIGN.lastIndex
      const column = at + present(g.lead).length
      if (g.fret?.length === 2 && (Number(g.fret) > FURTHEST_FRET || g.fret.startsWith('0'))) {
        const [first, second] = [g.fret[0]!, g.fret[1]!]
        tokens.push(tokenOf({ lead: g.lead, fret: first }, string, column, column + 1))
        tokens.push(
          tokenOf({ fret: second, shake: g.shake, cents: g.cents, off: g.off }, string, column + 1, end),
        )
        parted.push({ string, column, text: g.fret })
      } else tokens.push(tokenOf(g, string, column, end))
      at = end
      continue
    }
    if (row[at] === HELD_SIGN) tokens.push({ string, column: at, end: at + 1, held: true })
    else if (!/[-|:* .\][‖]/.test(row[at]!)) strays.push({ string, column: at, text: row[at]! })
    at++
  }
  return { tokens, strays, parted }
}

function tokenOf(
  g: Record<string, string | undefined>,
  string: number,
  column: number,
  end: number,
): TabToken {
  const number = (text: string | undefined) => (text === undefined ? undefined : Number(text))
  const lead = LEADS[(g.lead ?? '').toLowerCase()]
  const bentTo = lead === 'bend' ? number(g.maybe ?? g.fret) : undefined
  const fret = number(g.pre ?? g.stop ?? g.harm ?? g.harmMaybe ?? g.maybe ?? g.fret)
  return {
    string,
    column,
    end,
    ...(fret === undefined ? {} : { fret }),
    ...(lead ? { lead } : {}),
    ...((g.muted ?? g.mutedMaybe) ? { muted: true as const } : {}),
    ...((g.mutedMaybe ?? g.harmMaybe ?? (lead === 'bend' ? undefined : g.maybe))
      ? { optional: true as const }
      : {}),
    ...((g.harm ?? g.harmMaybe) ? { harmonic: true as const } : {}),
    ...(g.stop ? { artificial: true as const } : {}),
    ...(g.shake ? { vibrato: true as const } : {}),
    ...(g.cents && Math.abs(Number(g.cents)) <= 50 && Number(g.cents) !== 0
      ? { offsetCents: Number(g.cents) }
      : {}),
    ...(g.lead === '/' || g.lead === '\\' ? { slidUp: g.lead === '/' } : {}),
    ...(g.off ? { off: g.off === '/' ? ('up' as const) : ('down' as const) } : {}),
    ...(g.up ? { soundsAs: Number(g.up) } : bentTo === undefined ? {} : { soundsAs: bentTo }),
  }
}
