import { readFileSync } from 'node:fs'
import { wholeTune, newMemory } from '@velvet-porch/core/arrange'
import { guitarSetup } from '@velvet-porch/core/instrument'
import { readAbc } from '@velvet-porch/core/input/abc'
import { textTab } from '@velvet-porch/core/output'
import { arrangeFor } from './corpus/measure.ts'
import { traditionalTunes } from './corpus/tunes.ts'
const read = (p: string) => readAbc(readFileSync(new URL(p, import.meta.url), 'utf8'), () => 'tune').flatMap((r) => (r.tune ? [r.tune] : []))
const tunes = [...read('../../demo/tunes.abc'), ...traditionalTunes(), ...read('./ear/tunes.abc')].filter((t) => t.chords.length > 0)
const [style, level, title] = [process.argv[2] as never, Number(process.argv[3]) as never, process.argv[4]!]
const t = tunes.find((x) => x.title.startsWith(title))!
const made = arrangeFor(t, guitarSetup(), wholeTune(t, style, level), newMemory())
console.log(textTab(t, { setup: guitarSetup(), base: made.layer } as never))
