import 'fake-indexeddb/auto'
import { guitarSetup } from '@velvet-porch/core/instrument'
import type { ArrangementDoc, Level, TuneDoc } from '@velvet-porch/core/document'
import { arranging, arrangementOf, wholeTune } from '@velvet-porch/core/arrange'
import { finish } from '@velvet-porch/core/turns'
import { readAbc } from '@velvet-porch/core/input/abc'
import { arrangementId } from '../src/state/shelf.ts'

/** Reads one tune of our own from its music line. */
export function tuneOf(music: string, id = 'tune', head = 'M:4/4\nL:1/4\nQ:1/4=120\nK:C'): TuneDoc {
  return readAbc(`X:1\nT:Gate Latch\n${head}\n${music}\n`, () => id)[0]!.tune!
}

export function arrangementFor(tune: TuneDoc, level: Level = 2, capo = 0): ArrangementDoc {
  const setup = guitarSetup(capo)
  const regions = wholeTune(tune, 'alternating-bass', level)
  const { layer, plan } = finish(arranging(tune, setup, regions))
  return arrangementOf(arrangementId(tune.id), tune.title, tune, setup, regions, {
    layer,
    transposed: plan.transposed,
  })
}
