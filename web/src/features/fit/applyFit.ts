import type { ArrangementDoc, Layer } from '@velvet-porch/core/document'
import { arrangementOf, setupWith, type FitOption, type FitQuestion } from '@velvet-porch/core/arrange'
import { db } from '../../state/db.ts'
import { change } from '../../state/documents.ts'
import { arrangementId, duplicateTune } from '../../state/shelf.ts'

const madeFor = (
  tuneId: string,
  title: string,
  { tune, setup, regions }: FitQuestion,
  option: FitOption,
  layer: Layer,
): ArrangementDoc =>
  arrangementOf(
    arrangementId(tuneId),
    title,
    { ...tune, id: tuneId },
    setupWith(setup, option.choice),
    regions,
    { layer, transposed: option.transposed },
  )

/** Puts a fitted arrangement in place of the tune's own, as one step that can be undone. Locks of the old one fall away. */
export async function putOnTune(
  question: FitQuestion,
  option: FitOption,
  layer: Layer,
  label: string,
): Promise<void> {
  const { tune } = question
  const made = madeFor(tune.id, tune.title, question, option, layer)
  if (!(await db.arrangements.get(made.id))) {
    await db.arrangements.put(made)
    return
  }
  await change('arrangement', made.id, label, (draft) => {
    const { setup, regions, inputHash, transposed, base, tuneRev } = structuredClone(made)
    Object.assign(draft, { setup, regions, inputHash, transposed, base, tuneRev, variants: [] })
  })
}

/** The same on a copy of the tune; its id, or undefined where the tune is gone. */
export async function putOnCopy(
  question: FitQuestion,
  option: FitOption,
  layer: Layer,
  title: string,
): Promise<string | undefined> {
  const id = await duplicateTune(question.tune.id, title)
  if (id) await db.arrangements.put(madeFor(id, title, question, option, layer))
  return id
}
