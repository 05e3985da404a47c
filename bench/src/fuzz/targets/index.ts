import type { FuzzTarget } from '../target.ts'
import { abcTarget } from './abc.ts'
import { handoutTarget, logTarget, storedTarget, tabJsonTarget } from './documents.ts'
import { midiTarget, musicXmlTarget } from './scores.ts'
import { textTabTarget } from './textTab.ts'
import { chordTarget, lockTarget, patternTarget, placesTarget, strumTarget, tuningTarget } from './words.ts'

/** Every reader of what comes from outside or from storage. */
export const TARGETS = [
  abcTarget,
  textTabTarget,
  musicXmlTarget,
  midiTarget,
  tabJsonTarget,
  storedTarget,
  strumTarget,
  patternTarget,
  chordTarget,
  tuningTarget,
  placesTarget,
  logTarget,
  handoutTarget,
  lockTarget,
] as readonly FuzzTarget[]
