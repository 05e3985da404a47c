import { readFileSync } from 'node:fs'
import { arranging, finish, guitarSetup, wholeTune, textTab } from '@velvet-porch/core'
import { readAbc } from '@velvet-porch/core/abc'
const [file, n, style, level, capo] = process.argv.slice(2)
const tune = readAbc(readFileSync(file!,'utf8'), (()=>{let i=0; return ()=>'i'+i++})())[Number(n)-1]!.tune!
const setup = guitarSetup(...(capo? [Number(capo)] as any: []))
const t=performance.now()
const r = finish(arranging(tune, setup, wholeTune(tune, style as any, Number(level) as any)))
console.log((performance.now()-t).toFixed(0),'ms')
console.log(textTab({ tune, timeline: r.plan.timeline, setup, layer: r.layer, harmony: r.plan.harmony }))
console.log(r.remarks)
