import { present } from '@velvet-porch/core/invariant'
import { midiOf, pitchClass } from '@velvet-porch/core/music'
import { readNote, type ShapeFilters } from '@velvet-porch/core/chords'
import { useMemo } from 'react'
import { useSearchParams } from 'react-router'
import { useNames } from '../../ui/names/useNames.ts'

/** Parameters of the address that hold filters, as typed. */
export const WISH_PARAMS = [
  'bass',
  'top',
  'place',
  'leave',
  'ring',
  'zone',
  'max',
  'nobarre',
  'lying',
  'free',
] as const
/** No instrument here has more strings. */
const MOST_STRINGS = 6

export type FilterParam = (typeof WISH_PARAMS)[number]

/** The filters in the address; texts that cannot be read are named in `faults`. */
export function useShapeFilters(): {
  filters: ShapeFilters
  faults: readonly FilterParam[]
  texts: Readonly<Record<FilterParam, string>>
} {
  const [params] = useSearchParams()
  const names = useNames()
  const key = WISH_PARAMS.map((p) => params.get(p) ?? '').join('|')
  return useMemo(() => {
    const texts = Object.fromEntries(WISH_PARAMS.map((p, i) => [p, key.split('|')[i] ?? ''])) as Record<
      FilterParam,
      string
    >
    const faults: FilterParam[] = []
    const note = (param: 'bass' | 'top') => {
      if (!texts[param]) return undefined
      const read = readNote(names.letters(texts[param]))
      if (read && (param === 'bass' || read.octave !== undefined)) return read
      faults.push(param)
      return undefined
    }
    const strings = (param: 'leave' | 'ring') =>
      texts[param].split(/[,\s]+/).flatMap((word) => {
        const string = Number(word)
        if (Number.isInteger(string) && string >= 1 && string <= MOST_STRINGS) return [string]
        if (word && !faults.includes(param)) faults.push(param)
        return []
      })
    const bass = note('bass')
    const top = note('top')
    const place = /^(\d+)[.\s](\d+)$/.exec(texts.place)
    if (texts.place && !place) faults.push('place')
    const zone = /^(\d+)-(\d+)$/.exec(texts.zone)
    if (texts.zone && !(zone && Number(zone[1]) <= Number(zone[2]))) faults.push('zone')
    const max = Number(texts.max)
    if (texts.max && !(max > 0)) faults.push('max')
    const filters: ShapeFilters = {
      ...(bass ? { bass: pitchClass(bass.name) } : {}),
      ...(top ? { top: midiOf({ ...top.name, octave: present(top.octave) }) } : {}),
      ...(place ? { through: { string: Number(place[1]), fret: Number(place[2]) } } : {}),
      ...(texts.leave ? { leave: strings('leave') } : {}),
      ...(texts.ring ? { ring: strings('ring') } : {}),
      ...(zone && !faults.includes('zone') ? { zone: [Number(zone[1]), Number(zone[2])] as const } : {}),
      ...(max > 0 ? { maxStretch: max } : {}),
      ...(texts.nobarre ? { noBarre: true } : {}),
      ...(texts.lying ? { indexBarre: true } : {}),
      ...(texts.free ? { freeFingers: Number(texts.free) } : {}),
    }
    return { filters, faults, texts }
  }, [key, names])
}
