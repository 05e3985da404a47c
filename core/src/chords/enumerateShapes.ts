import type { Player } from '../instrument/hand.ts'
import { reachAt, reachTable } from '../instrument/reachTable.ts'
import { lastFret, openPitch, type Setup } from '../instrument/setup.ts'
import type { PitchClass } from '../music/pitch/pitch.ts'

/** What to look for: which pitch classes may sound, which must, and what the hand and the neck allow. */
export interface ShapeQuery {
  /** Pitch classes that may sound. */
  readonly allowed: readonly PitchClass[]
  /** Groups of pitch classes; of each group one at least must sound. */
  readonly essential: readonly (readonly PitchClass[])[]
  /** Pitch class that must be the lowest note. */
  readonly bass?: PitchClass
  /** Exact pitch that must be the highest note. */
  readonly top?: number
  /** A place that must sound. */
  readonly through?: { readonly string: number; readonly fret: number }
  /** Strings that must not sound, and strings that must sound. */
  readonly leave: readonly number[]
  readonly ring: readonly number[]
  readonly lowestFret: number
  readonly highestFret: number
  readonly fewestStrings: number
}

/** Strings left out between sounding ones, at most. */
const MOST_INNER_MUTES = 2

/** A window of frets that a hand covers; wider ones fall to the spans up the neck. */
const WINDOW = 5

/**
 * Calls `visit` with every set of frets that answers the query, without asking yet which fingers hold it. Frets count
 * from the nut where fretted, 0 is open (behind the capo), null is not sounding; the array is reused.
 * Every window of frets is searched once: a shape belongs to the window that starts at its lowest fretted fret.
 */
export function enumerateShapes(
  setup: Setup,
  query: ShapeQuery,
  player: Pick<Player, 'spans' | 'techniques'>,
  visit: (onNeck: readonly (number | null)[]) => void,
): void {
  const search = new ShapeSearch(setup, query, player, visit)
  search.window(0)
  for (let lowest = query.lowestFret; lowest <= query.highestFret; lowest++) search.window(lowest)
}

class ShapeSearch {
  private readonly strings: number
  private readonly frets: (number | null)[]
  /** For each string, from the lowest: the group bits that a pitch class meets, or −1 where it may not sound. */
  private readonly bits: readonly number[]
  private readonly full: number
  private readonly open: readonly number[]
  private readonly capo: number
  private readonly widest: number
  private choices: (readonly (number | null)[])[] = []
  private suffix: number[] = []
  private lowest = 0

  constructor(
    private readonly setup: Setup,
    private readonly query: ShapeQuery,
    player: Pick<Player, 'spans' | 'techniques'>,
    private readonly visit: (onNeck: readonly (number | null)[]) => void,
  ) {
    this.strings = setup.instrument.strings
    this.frets = Array.from({ length: this.strings }, () => null)
    this.full = (1 << query.essential.length) - 1
    this.bits = Array.from({ length: 12 }, (_, pc) =>
      query.allowed.includes(pc)
        ? query.essential.reduce((b, group, i) => (group.includes(pc) ? b | (1 << i) : b), 0)
        : -1,
    )
    this.open = setup.tuning.map((_, i) => openPitch(setup, i + 1))
    this.capo = Math.max(...setup.capo)
    this.widest = player.techniques.littleFinger ? player.spans['14'] : player.spans['13']
  }

  /** Searches the shapes whose lowest fretted fret (from the capo) is `lowest`; 0 means all open. */
  window(lowest: number): void {
    this.lowest = lowest
    const table = reachTable(this.setup.instrument)
    this.choices = this.open.map((_, i) => {
      const string = i + 1
      const choices: (number | null)[] = []
      const { leave, ring, through, highestFret } = this.query
      if (!leave.includes(string)) {
        if (lowest > 0) {
          const from = this.capo + lowest
          for (let fret = from; fret < from + WINDOW; fret++) {
            if (fret - this.capo > highestFret || fret - this.setup.capo[i]! > lastFret(this.setup, string))
              break
            if (reachAt(table, 0, from, fret) > this.widest) break
            if (this.bitsAt(i, fret) >= 0) choices.push(fret)
          }
        }
        if (this.bitsAt(i, 0) >= 0) choices.push(0)
      }
      if (!ring.includes(string)) choices.push(null)
      if (through?.string !== string) return choices
      const wanted = through.fret === 0 ? 0 : through.fret + this.setup.capo[i]!
      return choices.filter((c) => c === wanted)
    })
    this.suffix = Array.from({ length: this.strings + 1 }, () => 0)
    for (let i = 0; i < this.strings; i++)
      this.suffix[i + 1] =
        this.suffix[i]! |
        this.choices[i]!.reduce<number>((b, f) => (f === null ? b : b | this.bitsAt(i, f)), 0)
    this.descend(this.strings - 1, 0, 0, false, 0, 0, 0)
  }

  private pitchAt(i: number, onNeck: number): number {
    return onNeck === 0 ? this.open[i]! : this.open[i]! - this.setup.capo[i]! + onNeck
  }

  private bitsAt(i: number, onNeck: number): number {
    return this.bits[this.pitchAt(i, onNeck) % 12]!
  }

  /**
   * From the lowest string up. `met` are the essential groups sounding so far, `gap` strings left out since the last
   * sounding one, `inner` all of them between sounding strings.
   */
  private descend(
    i: number,
    met: number,
    sounding: number,
    hasLowest: boolean,
    gap: number,
    inner: number,
    topPitch: number,
  ): void {
    const { query } = this
    if (i < 0) {
      if (met !== this.full || sounding < query.fewestStrings) return
      if (this.lowest > 0 && !hasLowest) return
      if (query.top !== undefined && topPitch !== query.top) return
      this.visit(this.frets)
      return
    }
    if ((met | this.suffix[i + 1]!) !== this.full || sounding + i + 1 < query.fewestStrings) return
    for (const fret of this.choices[i]!) {
      this.frets[i] = fret
      if (fret === null) {
        this.descend(i - 1, met, sounding, hasLowest, sounding > 0 ? gap + 1 : 0, inner, topPitch)
        continue
      }
      if (inner + gap > MOST_INNER_MUTES) continue
      const pitch = this.pitchAt(i, fret)
      if (query.top !== undefined && pitch > query.top) continue
      if (sounding === 0 && query.bass !== undefined && pitch % 12 !== query.bass) continue
      this.descend(
        i - 1,
        met | this.bitsAt(i, fret),
        sounding + 1,
        hasLowest || fret - this.capo === this.lowest,
        0,
        inner + gap,
        Math.max(topPitch, pitch),
      )
    }
    this.frets[i] = null
  }
}
