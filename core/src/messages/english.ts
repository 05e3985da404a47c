import { accompanying, pattern } from './english/accompanying.ts'
import { arranging, form } from './english/arranging.ts'
import { auditing } from './english/auditing.ts'
import { editing } from './english/editing.ts'
import { features } from './english/features.ts'
import { files } from './english/files.ts'
import { reading } from './english/reading.ts'

/**
 * Everything that the core has to say to people, in English, by the code it leaves the core with. Values stand between
 * double braces; `_one` and `_other` are chosen by `count` (the form that i18next reads).
 */
export const ENGLISH = {
  reading,
  files,
  features,
  arranging,
  form,
  accompanying,
  pattern,
  auditing,
  editing,
} as const
