import { knownIn } from '../invariant.ts'
import type { Id } from './ids.ts'
import type { Measure, TuneDoc, TuneEvent } from './tune.ts'

/**
 * Gives a re-read tune the ids of the old one wherever measures and events are the same, so that what hangs on them
 * (locks, comments, arrangements) stays. Measures are aligned by their contents, longest common run first; events
 * inside paired measures by time and kind.
 */
export function alignIds(old: TuneDoc, fresh: TuneDoc): TuneDoc {
  const pairs = pairMeasures(old, fresh)
  const used = new Set<Id>([...old.measures.map((m) => m.id), ...old.events.map((e) => e.id)])
  let next = 1
  const unused = (prefix: string): Id => {
    while (used.has(`${prefix}${next}`)) next++
    used.add(`${prefix}${next}`)
    return `${prefix}${next}`
  }
  const measureId = new Map<Id, Id>()
  fresh.measures.forEach((m, i) =>
    measureId.set(m.id, pairs.has(i) ? old.measures[knownIn(pairs, i)]!.id : unused('m')),
  )
  const oldEvents = new Map<string, Id>(old.events.map((e) => [eventSlot(e, e.pos.measure), e.id]))
  const eventId = new Map<Id, Id>()
  for (const e of fresh.events) {
    const slot = eventSlot(e, knownIn(measureId, e.pos.measure))
    const known = oldEvents.get(slot)
    oldEvents.delete(slot)
    eventId.set(e.id, known ?? unused('e'))
  }
  const pos = <T extends { readonly pos: { measure: Id; tick: number } }>(x: T): T => ({
    ...x,
    pos: { ...x.pos, measure: knownIn(measureId, x.pos.measure) },
  })
  return {
    ...fresh,
    measures: fresh.measures.map((m) => ({ ...m, id: knownIn(measureId, m.id) })),
    events: fresh.events.map((e) => ({
      ...pos(e),
      id: knownIn(eventId, e.id),
      ...(e.tieTo ? { tieTo: knownIn(eventId, e.tieTo) } : {}),
    })),
    chords: fresh.chords.map(pos),
    tempos: fresh.tempos.map(pos),
    sections: fresh.sections.map((s) => ({ ...s, measure: knownIn(measureId, s.measure) })),
    ...(fresh.song
      ? {
          song: {
            lines: fresh.song.lines.map((l) => ({
              ...l,
              measures: l.measures.map((id) => measureId.get(id) ?? id),
            })),
          },
        }
      : {}),
    ...(fresh.abc
      ? {
          abc: {
            ...fresh.abc,
            spans: fresh.abc.spans.map((s) => ({ ...s, target: eventId.get(s.target) ?? s.target })),
          },
        }
      : {}),
  }
}

const eventSlot = (e: TuneEvent, measure: Id) =>
  `${measure}@${e.pos.tick}:${e.voice}:${e.pitch ? 'note' : 'rest'}`

/** Longest common subsequence of measures with equal contents, then unpaired neighbours in between one to one. */
function pairMeasures(old: TuneDoc, fresh: TuneDoc): Map<number, number> {
  const a = contents(old)
  const b = contents(fresh)
  const pairs = new Map<number, number>()
  let head = 0
  while (head < a.length && head < b.length && a[head] === b[head]) pairs.set(head, head++)
  let tail = 0
  while (
    tail < a.length - head &&
    tail < b.length - head &&
    a[a.length - 1 - tail] === b[b.length - 1 - tail]
  ) {
    tail++
    pairs.set(b.length - tail, a.length - tail)
  }
  const middle = commonRun(a.slice(head, a.length - tail), b.slice(head, b.length - tail))
  for (const [i, j] of middle) pairs.set(head + j, head + i)
  let lastOld = head - 1
  for (let j = head; j < b.length - tail; j++) {
    const known = pairs.get(j)
    if (known !== undefined) lastOld = known
    else {
      const limit = nextPaired(pairs, j, b.length) ?? a.length - tail
      if (lastOld + 1 < limit) pairs.set(j, ++lastOld)
    }
  }
  return pairs
}

function nextPaired(pairs: ReadonlyMap<number, number>, from: number, end: number): number | undefined {
  for (let j = from + 1; j < end; j++) if (pairs.has(j)) return pairs.get(j)
  return undefined
}

function contents(tune: TuneDoc): string[] {
  const byMeasure = new Map<Id, string[]>(tune.measures.map((m: Measure) => [m.id, [`${m.length}`]]))
  for (const e of tune.events) {
    const p = e.pitch
    byMeasure
      .get(e.pos.measure)
      ?.push(`${e.pos.tick}/${e.dur.ticks}/${p ? p.step + p.alter + p.octave : 'z'}/${e.voice}`)
  }
  return tune.measures.map((m) => knownIn(byMeasure, m.id).join(' '))
}

function commonRun(a: readonly string[], b: readonly string[]): [number, number][] {
  const best = Array.from({ length: a.length + 1 }, () => new Int32Array(b.length + 1))
  for (let i = a.length - 1; i >= 0; i--) {
    for (let j = b.length - 1; j >= 0; j--) {
      best[i]![j] = a[i] === b[j] ? best[i + 1]![j + 1]! + 1 : Math.max(best[i + 1]![j]!, best[i]![j + 1]!)
    }
  }
  const pairs: [number, number][] = []
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    if (a[i] === b[j]) pairs.push([i++, j++])
    else if (best[i + 1]![j]! >= best[i]![j + 1]!) i++
    else j++
  }
  return pairs
}
