import { STANDARD_TUNING } from '@velvet-porch/core/instrument'
import { minutesOf, type SetList, type SetTune } from '@velvet-porch/core/studio'
import { db } from '../../state/db.ts'
import { arrangementId } from '../../state/shelf.ts'
import { useStored } from '../../state/useStored.ts'

/** A tune of a set with its name; `gone` where it is not on the shelf any more. */
export interface ShownTune extends SetTune {
  readonly title: string
  readonly gone: boolean
}

/** The tunes of a set as they are played: instrument, tuning and capo of the tab on the bench. */
export function useSetTunes(set: SetList | undefined): readonly ShownTune[] | undefined {
  return useStored(
    () =>
      Promise.all(
        (set?.items ?? []).map(async ({ tuneId, minutes }): Promise<ShownTune> => {
          const [row, tune, doc] = await Promise.all([
            db.shelf.get(tuneId),
            db.tunes.get(tuneId),
            db.arrangements.get(arrangementId(tuneId)),
          ])
          return {
            id: tuneId,
            title: row?.title ?? '',
            gone: !row || row.removedAt !== undefined,
            minutes: minutes ?? (tune ? minutesOf(tune) : 0),
            kind: doc?.setup.instrument.kind ?? 'guitar',
            tuning: doc?.setup.tuning ?? STANDARD_TUNING,
            capo: doc?.setup.capo ?? STANDARD_TUNING.map(() => 0),
          }
        }),
      ),
    [set],
  )
}
