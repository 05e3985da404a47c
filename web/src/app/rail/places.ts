import {
  IconBooks,
  IconGridDots,
  IconGuitarPick,
  IconHeart,
  IconMetronome,
  IconMusic,
  IconPlaylist,
  IconPrinter,
  IconRuler2,
  IconSchool,
  IconSettings,
  IconTargetArrow,
  IconUsers,
  IconVinyl,
  IconWaveSine,
  type Icon,
} from '@tabler/icons-react'

/** The stages of the work on one tune, in its order. */
export const STAGES = ['tune', 'fit', 'arrange', 'teach', 'practise', 'handout'] as const
export type Stage = (typeof STAGES)[number]

/** What is looked up beside the work. */
export const REFERENCES = [
  'students',
  'repertoire',
  'sets',
  'shapes',
  'neck',
  'tuner',
  'taste',
  'settings',
] as const
export type Reference = (typeof REFERENCES)[number]

/** What a phone has no room for beside the others. */
export const IN_MENU: readonly Reference[] = ['taste']

/** Every place of the app that has a page. */
export type Place = 'shelf' | Stage | Reference

export const PLACE_ICONS: Readonly<Record<Place, Icon>> = {
  shelf: IconBooks,
  tune: IconMusic,
  fit: IconTargetArrow,
  arrange: IconGuitarPick,
  teach: IconSchool,
  practise: IconMetronome,
  handout: IconPrinter,
  shapes: IconGridDots,
  neck: IconRuler2,
  tuner: IconWaveSine,
  students: IconUsers,
  repertoire: IconVinyl,
  sets: IconPlaylist,
  taste: IconHeart,
  settings: IconSettings,
}

/** The place that an address shows; the shelf where it shows none. */
export function placeOf(pathname: string): Place {
  const parts = pathname.split('/').filter(Boolean)
  return [...STAGES, ...REFERENCES].find((p) => p === parts.at(-1) || p === parts[0]) ?? 'shelf'
}

/** The address of a stage of a tune. */
export const stagePath = (tuneId: string, stage: Stage): string => `/tunes/${tuneId}/${stage}`
