import { readFileSync } from 'node:fs'
import type { TuneDoc } from '@velvet-porch/core/document'
import { readAbc } from '@velvet-porch/core/input/abc'
import { generatedTunes } from './generatedTunes.ts'

/** Traditional tunes, long out of copyright, from memory. */
export function traditionalTunes(): TuneDoc[] {
  const text = readFileSync(new URL('../../../core/test/corpus/traditional.abc', import.meta.url), 'utf8')
  return readAbc(text, () => 'tune').flatMap((r) => (r.tune ? [r.tune] : []))
}

const GENERATED = 48

/** The tunes of the corpus: traditional ones and generated ones. */
export const corpusTunes = (): TuneDoc[] => [...traditionalTunes(), ...generatedTunes(GENERATED)]
