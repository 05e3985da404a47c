import { corpusTunes } from './src/corpus/tunes.ts'
import { pairwise, allConditions, setupFor, SCHOOLS } from './src/corpus/conditions.ts'
import { generatedAbc } from './src/corpus/generatedTunes.ts'
import { arrangeFor, countsOf, NOTHING, added } from './src/corpus/measure.ts'
import { wholeTune, STRUCTURAL } from '@velvet-porch/core'
console.log(generatedAbc(3), generatedAbc(25))
const s=pairwise(); console.log('pairwise rows', s.length, 'conditions', allConditions().length)
const tunes=corpusTunes(); let t0=Date.now()
let sum=NOTHING
s.forEach((c,i)=>{ const tune=tunes[i%tunes.length]!; const setup=setupFor(c,c.hand)
 try{ const made=arrangeFor(tune,setup,wholeTune(tune,c.style,c.level,SCHOOLS[c.school]))
 const k=countsOf(setup,made); sum=added(sum,k)
 const bad=made.report.findings.filter(f=>STRUCTURAL.has(f.kind)||f.kind==='hop')
 if(bad.length||k.repeatedUnlike||k.melodyKept<k.melodyNotes) console.log(tune.title,JSON.stringify(c),bad.slice(0,3).map(f=>f.measure+' '+f.kind+' '+f.text),'unlike',k.repeatedUnlike)
 if(c.school==='flat pick, alternating'&&k.strokesRepeated) console.log('strokes',tune.title,JSON.stringify(c),k.strokesRepeated,k.strokes)
 }catch(e:any){console.log('ERR',tune.title,JSON.stringify(c),e.message)} })
console.log(Date.now()-t0,'ms',sum)
