import { ENGLISH } from '@velvet-porch/core/messages'
import { accompany } from './en/accompany.ts'
import { bench } from './en/bench.ts'
import { fit } from './en/fit.ts'
import { handout } from './en/handout.ts'
import { playIn } from './en/playIn.ts'
import { practise } from './en/practise.ts'
import { repertoire } from './en/repertoire.ts'
import { shapes } from './en/shapes.ts'
import { sheet } from './en/sheet.ts'
import { studio } from './en/studio.ts'
import { taste } from './en/taste.ts'
import { teach } from './en/teach.ts'
import { tuner } from './en/tuner.ts'
import { write } from './en/write.ts'

/** English texts of the stages, grouped by place; `said` is what the core says, by its codes. */
export const stages = {
  ...sheet,
  ...bench,
  ...accompany,
  ...shapes,
  ...fit,
  ...teach,
  ...handout,
  ...write,
  ...tuner,
  ...studio,
  ...practise,
  ...playIn,
  ...repertoire,
  ...taste,
  said: ENGLISH,
}
