import { oneOf, wholeBelow, type Chance } from '../../../e2e/chance.ts'

const VALUES: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  1,
  2,
  3.5,
  64,
  1e9,
  Number.NaN,
  Number.MAX_SAFE_INTEGER,
  '',
  'm1',
  'nowhere',
  '\u0000',
  'x'.repeat(700),
  [],
  {},
]

type Data = Record<string, unknown> | unknown[]

/** Plain data changed in one to four places: a value exchanged, taken away, doubled, or moved from elsewhere in it. */
export function mutateData(value: unknown, chance: Chance): unknown {
  const copy = structuredClone(value)
  for (let i = 1 + wholeBelow(chance, 4); i > 0; i--) {
    const places = placesIn(copy)
    if (places.length === 0) return oneOf(chance, VALUES)
    const { holder, key } = oneOf(chance, places)
    const own = (holder as Record<string, unknown>)[key]
    const set = (v: unknown) => ((holder as Record<string, unknown>)[key] = v)
    switch (wholeBelow(chance, 6)) {
      case 0:
        if (Array.isArray(holder)) holder.splice(Number(key), 1)
        else delete holder[key]
        break
      case 1:
        if (Array.isArray(holder)) holder.splice(Number(key), 0, structuredClone(own))
        break
      case 2: {
        const other = oneOf(chance, places)
        set(structuredClone((other.holder as Record<string, unknown>)[other.key]))
        break
      }
      case 3:
        set(typeof own === 'number' ? own + oneOf(chance, [-1, 1, 0.5, 10, 1000]) : oneOf(chance, VALUES))
        break
      default:
        set(structuredClone(oneOf(chance, VALUES)))
    }
  }
  return copy
}

interface DataPlace {
  readonly holder: Data
  readonly key: string
}

/** Every place of some data, a sample of long lists. */
function placesIn(value: unknown, found: DataPlace[] = []): DataPlace[] {
  if (typeof value !== 'object' || value === null || found.length > 4000) return found
  const keys = Object.keys(value)
  const step = Math.max(1, Math.floor(keys.length / 60))
  for (let i = 0; i < keys.length; i += step) {
    const key = keys[i]!
    found.push({ holder: value as Data, key })
    placesIn((value as Record<string, unknown>)[key], found)
  }
  return found
}
