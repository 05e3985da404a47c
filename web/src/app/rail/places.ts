import {
  IconBooks,
  IconGridDots,
  IconGuitarPick,
  IconMusic,
  IconPrinter,
  IconRuler2,
  IconSchool,
  IconSettings,
  IconTargetArrow,
  IconWaveSine,
  type Icon,
} from '@tabler/icons-react'

/** The stages of the work on one tune, in its order. */
export const STAGES = ['tune', 'fit', 'arrange', 'teach', 'handout'] as const
export type Stage = (typeof STAGES)[number]

/** What is looked up beside the work. */
export const REFERENCES = ['shapes', 'neck', 'tuner', 'settings'] as const
export type Reference = (typeof REFERENCES)[number]

/** Every place of the app that has a page. */
export type Place = 'shelf' | Stage | Reference

export const PLACE_ICONS: Readonly<Record<Place, Icon>> = {
  shelf: IconBooks,
  tune: IconMusic,
  fit: IconTargetArrow,
  arrange: IconGuitarPick,
  teach: IconSchool,
  handout: IconPrinter,
  shapes: IconGridDots,
  neck: IconRuler2,
  tuner: IconWaveSine,
  settings: IconSettings,
}

/** The place that an address shows; the shelf where it shows none. */
export function placeOf(pathname: string): Place {
  const last = pathname.split('/').filter(Boolean).at(-1)
  return [...STAGES, ...REFERENCES].find((p) => p === last) ?? 'shelf'
}

/** The address of a stage of a tune. */
export const stagePath = (tuneId: string, stage: Stage): string => `/tunes/${tuneId}/${stage}`
