import type { Grip, PressedPlace } from '../../document/tab.ts'
import type { Finger, FingerOn, HandMove } from './lessonStep.ts'

/** All fingers that are down in a grip, those included that wait beneath for a pull-off; index finger first. */
export function fingersOn(grip: Pick<Grip, 'pressed' | 'ready'> | undefined): FingerOn[] {
  const by = new Map<string, PressedPlace[]>()
  for (const p of [...(grip?.pressed ?? []), ...(grip?.ready ?? [])]) {
    const key = `${p.finger} ${p.fret}`
    by.set(key, [...(by.get(key) ?? []), p])
  }
  return [...by.values()]
    .map((places): FingerOn => {
      const strings = places.map((p) => p.string)
      return {
        finger: places[0]!.finger,
        fret: places[0]!.fret,
        from: Math.min(...strings),
        to: Math.max(...strings),
      }
    })
    .sort((a, b) => order(a.finger) - order(b.finger))
}

const order = (finger: Finger): number => (finger === 'T' ? 5 : finger)

const sameOn = (a: FingerOn, b: FingerOn) => a.fret === b.fret && a.from === b.from && a.to === b.to

/** True where a finger can stay on its strings and go along them. */
const slidesTo = (a: FingerOn, b: FingerOn) => a.fret !== b.fret && a.from === b.from && a.to === b.to

/** What each finger does between what was down and what is to be down. */
export function handMove(before: readonly FingerOn[], now: readonly FingerOn[]): HandMove {
  const move = {
    stays: [] as FingerOn[],
    slides: [] as FingerOn[],
    lands: [] as FingerOn[],
    lifts: [] as Finger[],
  }
  for (const to of now) {
    const from = before.find((f) => f.finger === to.finger)
    if (from && sameOn(from, to)) move.stays.push(to)
    else if (from && slidesTo(from, to)) move.slides.push(to)
    else move.lands.push(to)
  }
  for (const { finger } of before) if (!now.some((f) => f.finger === finger)) move.lifts.push(finger)
  return move
}
