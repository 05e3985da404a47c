import { arranging, finish, guitarSetup, wholeTune } from '@velvet-porch/core'
import { readAbc } from '@velvet-porch/core/abc'
const tune = readAbc('X:1\nT:T\nM:4/4\nL:1/4\nK:C\nCEGc|GBdg|\n', ()=>'t')[0]!.tune!
const r = finish(arranging(tune, guitarSetup(), wholeTune(tune, 'strum', 2)))
console.log(r.remarks, r.plan.harmony, r.layer.notes.length)
