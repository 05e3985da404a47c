import type { InstrumentKind } from '@velvet-porch/core/instrument'
import { A4_RANGE } from '@velvet-porch/core/input/audio'
import { NOTE_NAMINGS, type NoteNaming } from '@velvet-porch/core/music'
import { lessonSettingsFrom, USUAL_LESSON, type LessonSettings } from '@velvet-porch/core/lesson'
import { createStore, useStore } from 'zustand'
import { persist, type PersistStorage } from 'zustand/middleware'
import { keepValue, keptValue } from './keptValue.ts'

/** How this teacher likes things shown. Kept on the device, outside the documents. */
export interface Prefs {
  readonly naming: NoteNaming
  readonly boxes: 'upright' | 'sideways'
  readonly labels: 'fingers' | 'notes' | 'degrees'
  /** The taste that new tunes are arranged to; absent: the house's. */
  readonly taste?: string
  /** The hand that the reference pages measure for; absent for an adult hand. */
  readonly player?: string
  /** How the sheet of the bench is shown. */
  readonly sheet: SheetPrefs
  /** How this teacher teaches. */
  readonly lesson: LessonSettings
  /** Hands for whom all that may be left out is left out; an adult hand is `''`. */
  readonly leaveOut: readonly string[]
  /** What stays when a capo moves; absent: the shapes of a song, the sound of a tune. */
  readonly capoKeeps?: 'shapes' | 'sound'
  /** Tunings of the teacher's own, by name; notes from the lowest string. */
  readonly tunings: readonly OwnTuning[]
  /** True where effort stands unfolded over the sheet, measure by measure. */
  readonly effortShown: boolean
  /** Pitch of A4 that instruments are tuned to, in hertz. */
  readonly a4: number
  /** Milliseconds that the microphone of this device is late; absent until it is measured. */
  readonly delayMs?: number
  /**
   * Days after which a file with everything is asked for (0: never), when one was saved last, and since when there is something to save;
   * milliseconds, 0 where it is not so yet.
   */
  readonly backup: { readonly everyDays: BackupDays; readonly savedAt: number; readonly since: number }
  /** Where the first steps stand (see `guide.ts`). */
  readonly guide: GuideState
}

/** Days after which a backup may be asked for; 0 never does. */
export const BACKUP_DAYS = [0, 7, 30] as const
export type BackupDays = (typeof BACKUP_DAYS)[number]

/** The first steps with a tune, in their order: brought, made tab, heard, printed. */
export const GUIDE_STEPS = ['bring', 'tab', 'hear', 'print'] as const
export type GuideStep = (typeof GUIDE_STEPS)[number]

/** Where the first steps stand: never begun, at a step, all done and still shown, or ended. */
export const GUIDE_STATES = ['unseen', ...GUIDE_STEPS, 'done', 'ended'] as const
export type GuideState = (typeof GUIDE_STATES)[number]

/** A tuning that a teacher has named. */
export interface OwnTuning {
  readonly kind: InstrumentKind
  readonly name: string
  readonly notes: string
}

/** Lanes of the sheet, how its form is shown, and measures a line (0: as they fit). */
export interface SheetPrefs {
  readonly fingers: boolean
  readonly picking: boolean
  readonly counts: boolean
  readonly degrees: boolean
  readonly strings: boolean
  /** Words to the student. */
  readonly remarks: boolean
  /** Names of double stops. */
  readonly intervals: boolean
  /** Boxes of what the hand holds, over the chord names. */
  readonly boxes: boolean
  /** Chord names as the hand behind the capo calls them, or as they sound. */
  readonly names: 'shapes' | 'sounding'
  /** The lower voice of the staff as it rings, or plainly in single values and rests. */
  readonly durations: 'ring' | 'plain'
  /** Lines on a page, or one line that runs on. */
  readonly layout: 'page' | 'line'
  /** Size of the sheet in per cent. */
  readonly zoom: Zoom
  readonly form: 'signs' | 'out'
  readonly perLine: 0 | 1 | 2 | 4
}

export const ZOOMS = [75, 100, 125, 150, 200] as const
export type Zoom = (typeof ZOOMS)[number]

export const FIRST_SHEET: SheetPrefs = {
  fingers: true,
  picking: false,
  counts: false,
  degrees: false,
  strings: false,
  remarks: true,
  intervals: true,
  boxes: false,
  names: 'shapes',
  durations: 'ring',
  layout: 'page',
  zoom: 100,
  form: 'signs',
  perLine: 0,
}

const KEY = 'velvet-porch.prefs'
const FIRST: Prefs = {
  naming: 'letters',
  boxes: 'upright',
  labels: 'fingers',
  sheet: FIRST_SHEET,
  lesson: USUAL_LESSON,
  leaveOut: [],
  tunings: [],
  effortShown: false,
  a4: A4_RANGE.usual,
  backup: { everyDays: 30, savedAt: 0, since: 0 },
  guide: 'unseen',
}

/** A tuning as it was kept; its instrument is compared with the one in use where it is offered. */
const isOwnTuning = (value: unknown): value is OwnTuning => {
  const { kind, name, notes } = (value ?? {}) as Partial<OwnTuning>
  return [kind, name, notes].every((text) => typeof text === 'string')
}

const isA4 = (value: unknown): value is number =>
  typeof value === 'number' && value >= A4_RANGE.low && value <= A4_RANGE.high

/** Preferences as somebody kept them: what is not understood is as at first. */
function prefsFrom(value: unknown): Prefs {
  const stored = (typeof value === 'object' && value !== null ? value : {}) as Partial<Prefs>
  return {
    naming: NOTE_NAMINGS.find((n) => n === stored.naming) ?? FIRST.naming,
    boxes: stored.boxes === 'sideways' ? 'sideways' : 'upright',
    labels: stored.labels === 'notes' || stored.labels === 'degrees' ? stored.labels : 'fingers',
    ...(typeof stored.player === 'string' ? { player: stored.player } : {}),
    ...(typeof stored.taste === 'string' ? { taste: stored.taste } : {}),
    sheet: sheetOf(stored.sheet),
    lesson: lessonSettingsFrom(stored.lesson),
    leaveOut: Array.isArray(stored.leaveOut) ? stored.leaveOut.filter((id) => typeof id === 'string') : [],
    ...(stored.capoKeeps === 'shapes' || stored.capoKeeps === 'sound' ? { capoKeeps: stored.capoKeeps } : {}),
    tunings: Array.isArray(stored.tunings) ? stored.tunings.filter(isOwnTuning) : [],
    effortShown: stored.effortShown === true,
    a4: isA4(stored.a4) ? stored.a4 : FIRST.a4,
    ...(typeof stored.delayMs === 'number' && Math.abs(stored.delayMs) < 1000
      ? { delayMs: stored.delayMs }
      : {}),
    backup: {
      everyDays: BACKUP_DAYS.find((d) => d === stored.backup?.everyDays) ?? FIRST.backup.everyDays,
      savedAt: typeof stored.backup?.savedAt === 'number' ? stored.backup.savedAt : 0,
      since: typeof stored.backup?.since === 'number' ? stored.backup.since : 0,
    },
    guide: GUIDE_STATES.find((g) => g === stored.guide) ?? FIRST.guide,
  }
}

/** Takes preferences from a backup. */
export const restorePrefs = (value: unknown): void => setPrefs(prefsFrom(value))

function sheetOf(stored: Partial<SheetPrefs> | undefined): SheetPrefs {
  const on = (
    layer: 'fingers' | 'picking' | 'counts' | 'degrees' | 'strings' | 'intervals' | 'boxes' | 'remarks',
  ) => (typeof stored?.[layer] === 'boolean' ? stored[layer] : FIRST_SHEET[layer])
  return {
    fingers: on('fingers'),
    picking: on('picking'),
    counts: on('counts'),
    degrees: on('degrees'),
    strings: on('strings'),
    remarks: on('remarks'),
    intervals: on('intervals'),
    boxes: on('boxes'),
    names: stored?.names === 'sounding' ? 'sounding' : 'shapes',
    durations: stored?.durations === 'plain' ? 'plain' : 'ring',
    layout: stored?.layout === 'line' ? 'line' : 'page',
    zoom: ZOOMS.find((z) => z === stored?.zoom) ?? 100,
    form: stored?.form === 'out' ? 'out' : 'signs',
    perLine: ([1, 2, 4] as const).find((n) => n === stored?.perLine) ?? 0,
  }
}

/** The schema of what is kept; earlier ones held the preferences alone. */
const VERSION = 1

const kept: PersistStorage<Prefs> = {
  getItem: (name) => {
    const value = keptValue(name) as { state?: unknown } | undefined
    return { state: prefsFrom(value?.state ?? value), version: VERSION }
  },
  setItem: keepValue,
  removeItem: (name) => keepValue(name, undefined),
}

const store = createStore<Prefs>()(persist(() => FIRST, { name: KEY, version: VERSION, storage: kept }))

export const currentPrefs = (): Prefs => store.getState()

export function setPrefs(change: Partial<Prefs>): void {
  store.setState(change)
}

/** The preferences, followed. */
export const usePrefs = (): Prefs => useStore(store)
