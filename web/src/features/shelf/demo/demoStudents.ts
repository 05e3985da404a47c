import { ADULT_SPANS, DEFAULT_PLAYER, type HandSpans, type Player } from '@velvet-porch/core/instrument'
import type { Level } from '@velvet-porch/core/document'
import type { TuneStatus } from '@velvet-porch/core/studio'

/** How somebody of the demo gets on with a tune: the invented practice is made from it. */
export interface DemoStudy {
  readonly title: string
  /** Days before today on which it was given, and practised for the last time. */
  readonly given: number
  readonly until: number
  /** Days between two days of practice. */
  readonly every: number
  /** Quarter notes a minute at the beginning, and by how much it rises each time. */
  readonly from: number
  readonly rise: number
  readonly goal: number
  /** A piece that does not get beyond a tempo. */
  readonly stuck?: { readonly piece: number; readonly bpm: number }
  readonly learnt?: number
  readonly wanted?: number
}

/** An invented student: a hand of their own, lessons on a day of the week, tunes. */
export interface DemoStudent {
  readonly hand: Player
  readonly level: Level
  readonly minutesADay: number
  readonly goals: string
  /** Days from today to the next lesson, and its hour. */
  readonly next: number
  readonly time: string
  readonly studies: readonly DemoStudy[]
  /** What was done in the last lessons, the latest first. */
  readonly lessons: readonly { readonly done: string; readonly next: string }[]
}

const scaled = (by: number): HandSpans =>
  Object.fromEntries(
    Object.entries(ADULT_SPANS).map(([pair, mm]) => [pair, Math.round(mm * by)]),
  ) as HandSpans

/** Three students of the invented studio, with hands that differ. */
export const DEMO_STUDENTS: readonly DemoStudent[] = [
  {
    hand: {
      ...DEFAULT_PLAYER,
      name: 'Wren Tallow',
      spans: scaled(0.84),
      techniques: { barre: false, littleFinger: true, thumbOver: false },
    },
    level: 1,
    minutesADay: 15,
    goals: 'Play the ferry tune for her grandmother in spring.',
    next: 0,
    time: '16:00',
    studies: [
      {
        title: 'The Ferry at Dusk',
        given: 48,
        until: 1,
        every: 1,
        from: 60,
        rise: 6,
        goal: 104,
        stuck: { piece: 3, bpm: 72 },
        wanted: -30,
      },
      { title: 'Two Chairs', given: 96, until: 20, every: 3, from: 56, rise: 7, goal: 96, learnt: 18 },
    ],
    lessons: [
      {
        done: 'Third phrase of the ferry tune, very slowly; the thumb keeps going now.',
        next: 'Join phrases two and three.',
      },
      { done: 'Second phrase clean at 80.', next: 'Third phrase: only the change to D7.' },
      { done: 'First phrase up to tempo.', next: 'Second phrase, hands alone.' },
    ],
  },
  {
    hand: { ...DEFAULT_PLAYER, name: 'Ansel Pike', school: 'thumbAndIndex' },
    level: 3,
    minutesADay: 30,
    goals: 'A set of five for the porch evening.',
    next: 1,
    time: '18:15',
    studies: [
      {
        title: "Lamplighter's Round",
        given: 62,
        until: 2,
        every: 2,
        from: 60,
        rise: 4,
        goal: 92,
        wanted: -21,
      },
      { title: 'Three Spokes Short', given: 30, until: 3, every: 2, from: 90, rise: 9, goal: 156 },
      {
        title: 'The Ferry at Dusk',
        given: 110,
        until: 41,
        every: 4,
        from: 70,
        rise: 4,
        goal: 104,
        learnt: 40,
      },
    ],
    lessons: [
      {
        done: 'Chorus of the round as chord melody: low voices held.',
        next: 'The whole round without stopping.',
      },
      { done: 'Verse with the alternating thumb at 84.', next: 'Chorus, shapes alone.' },
    ],
  },
  {
    hand: {
      ...DEFAULT_PLAYER,
      name: 'Mirela Dove',
      spans: scaled(1.06),
      techniques: { barre: true, littleFinger: true, thumbOver: true },
    },
    level: 4,
    minutesADay: 25,
    goals: 'Slow airs in other tunings.',
    next: 3,
    time: '10:30',
    studies: [
      {
        title: 'Rain on the Bicycle Shop',
        given: 40,
        until: 9,
        every: 2,
        from: 44,
        rise: 3,
        goal: 66,
        stuck: { piece: 2, bpm: 50 },
      },
      { title: "Lamplighter's Round", given: 75, until: 6, every: 4, from: 58, rise: 3, goal: 92 },
    ],
    lessons: [
      {
        done: 'Rain: the slide in the second phrase still stops the drone.',
        next: 'Practise it without the slide first.',
      },
      { done: 'New tuning; open strings listened to.', next: 'First phrase by ear.' },
    ],
  },
]

/** How some tunes of the demo stand, and who asked for them. */
export const DEMO_STANDING: readonly {
  readonly title: string
  readonly status: TuneStatus
  readonly tags: readonly string[]
  readonly askedBy: readonly string[]
}[] = [
  {
    title: 'The Ferry at Dusk',
    status: 'teaching',
    tags: ['waltz', 'first pieces'],
    askedBy: ['Wren Tallow'],
  },
  {
    title: "Lamplighter's Round",
    status: 'repertoire',
    tags: ['porch'],
    askedBy: ['Ansel Pike', 'Mirela Dove'],
  },
  { title: 'Rain on the Bicycle Shop', status: 'teaching', tags: ['slow'], askedBy: [] },
  { title: 'Two Chairs', status: 'repertoire', tags: ['first pieces'], askedBy: [] },
  { title: 'Three Spokes Short', status: 'teaching', tags: ['jig', 'porch'], askedBy: ['Ansel Pike'] },
  { title: 'Nightjar over the Weir', status: 'arranging', tags: ['mandolin'], askedBy: [] },
]

/** The set list of the demo. */
export const DEMO_GIG = {
  name: 'Porch evening in spring',
  titles: [
    "Lamplighter's Round",
    'Rain on the Bicycle Shop',
    'The Ferry at Dusk',
    'Siding at Sundown',
    'Nightjar over the Weir',
    'Two Chairs',
    'Three Spokes Short',
  ],
}
