import type { Lock, Region, Style, Level, Ornament } from '../model/arrangement.ts'
import type { School } from '../model/school.ts'
import type { Id } from '../model/ids.ts'
import type { TuneDoc } from '../model/tune.ts'
import type { LeftFinger } from '../neck/hand.ts'
import type { Place } from '../neck/setup.ts'

/** What a locked measure keeps: its style and level, and every note's place and finger. */
export interface LockedMeasure {
  readonly style: Style
  readonly ornament?: Ornament
  readonly level: Level
  readonly school?: School
  readonly notes: readonly { readonly id: Id; readonly place: Place; readonly left: LeftFinger }[]
}

/** A measure keeps the style and level that it was locked in, whatever its section changes to. */
export function withLockedMeasures(
  tune: TuneDoc,
  regions: readonly Region[],
  locks: readonly Lock[],
): readonly Region[] {
  const kept = locks.filter((l) => l.field === 'measure' && tune.measures.some((m) => m.id === l.target))
  return [
    ...regions,
    ...kept.map((l): Region => {
      const { style, level, school, ornament } = l.value as LockedMeasure
      return {
        from: l.target,
        to: l.target,
        style,
        level,
        ...(school ? { school } : {}),
        ...(ornament === undefined ? {} : { ornament }),
      }
    }),
  ]
}

/** A locked measure as locks of its single notes. */
export function locksOfMeasures(locks: readonly Lock[]): Lock[] {
  return locks
    .filter((l) => l.field === 'measure')
    .flatMap((l) =>
      (l.value as LockedMeasure).notes.flatMap((n, i): Lock[] => [
        { id: `${l.id}${PART}${i}p`, target: n.id, field: 'place', value: n.place },
        { id: `${l.id}${PART}${i}f`, target: n.id, field: 'left', value: n.left },
      ]),
    )
}

/** Parts a note's lock from the name of the measure's. */
const PART = '\u0000'

/** The lock that the user made: a note's lock inside a locked measure stands for the measure's. */
export function ownerOf(id: Id, locks: readonly Lock[]): Id {
  return locks.find((l) => l.id === id.split(PART)[0])?.id ?? id
}
