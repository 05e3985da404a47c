import { readFileSync } from 'node:fs'
import { wholeTune, newMemory } from '@velvet-porch/core/arrange'
import { guitarSetup } from '@velvet-porch/core/instrument'
import { readAbc } from '@velvet-porch/core/input/abc'
import { arrangeFor } from './corpus/measure.ts'
import { traditionalTunes } from './corpus/tunes.ts'
import { pageOf } from './ear/page.ts'
import * as heard from './ear/heard.ts'
const read = (p: string) => readAbc(readFileSync(new URL(p, import.meta.url), 'utf8'), () => 'tune').flatMap((r) => (r.tune ? [r.tune] : []))
const tunes = [...read('../../demo/tunes.abc'), ...traditionalTunes(), ...read('./ear/tunes.abc')].filter((t) => t.chords.length > 0)
const [style, level, what] = [process.argv[2] as never, Number(process.argv[3]) as never, process.argv[4]!]
const memory = newMemory()
for (const t of tunes) {
  const s = (heard as never as Record<string, (p: unknown) => heard.Share>)[what]!(pageOf(arrangeFor(t, guitarSetup(), wholeTune(t, style, level), memory).json))
  if (s.hits) console.log(`${s.hits}/${s.of}`, t.title)
}
