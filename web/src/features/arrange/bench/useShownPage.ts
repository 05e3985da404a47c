import { withVariant, type ArrangementDoc, type TuneDoc } from '@velvet-porch/core/document'
import { writtenOut } from '@velvet-porch/core/edit'
import { useMemo, useState } from 'react'
import { useStore } from 'zustand'
import { sheetMaker, sheetModel } from '../../../score/sheet/sheetModel.ts'
import { usePrefs } from '../../../state/prefs.ts'
import { changedNotes, withAlternative } from '../shownNotes.ts'
import type { BenchStore } from './benchStore.ts'

/**
 * The page of the bench: the arrangement as it is played, or the version that is looked at in its place.
 * @param before the arrangement before its last change, where it is looked at
 */
export function useShownPage(
  store: BenchStore,
  tune: TuneDoc | undefined,
  doc: ArrangementDoc | null | undefined,
  played: ArrangementDoc | null | undefined,
  before: ArrangementDoc | undefined,
) {
  const { sheet } = usePrefs()
  const tried = useStore(store, (s) => s.tried)
  const trial = useStore(store, (s) => s.trial)
  const preview = useStore(store, (s) => s.preview)
  const ossia = useStore(store, (s) => s.ossia)
  const shown = useMemo(() => {
    if (preview) return preview
    if (!doc || !played || before) return before ?? doc
    if (trial) return { ...doc, base: trial }
    const kept = doc.variants.find((v) => v.id === ossia)
    if (kept) return { ...doc, base: withVariant(doc.base, kept) }
    return tried ? withAlternative(doc, tried) : played
  }, [preview, before, doc, played, tried, trial, ossia])
  const measures = tune?.measures
  const known = useMemo(() => new Set(measures?.map((m) => m.id)), [measures])
  const fits =
    tune !== undefined &&
    shown !== undefined &&
    (!shown || shown.base.notes.every((n) => known.has(n.pos.measure)))
  // Written out, the page is another one: it can be read, heard and printed, and is changed in its signs.
  const out = useMemo(
    () =>
      sheet.form === 'out' && tune && shown && fits
        ? writtenOut({ tune, arrangement: { ...shown } })
        : undefined,
    [sheet.form, tune, shown, fits],
  )
  const plain = sheet.durations === 'plain'
  const [signsOf] = useState(sheetMaker)
  const signs = useMemo(
    () => (tune ? signsOf(tune, shown && fits ? shown : undefined, plain) : undefined),
    [signsOf, tune, shown, fits, plain],
  )
  const model = useMemo(
    () => (out ? sheetModel(out.tune, out.arrangement, plain) : signs),
    [out, signs, plain],
  )
  const other = Boolean(preview ?? before ?? tried ?? trial ?? ossia)
  const changed = useMemo(
    () =>
      doc && other && shown
        ? before && !preview
          ? changedNotes(before, doc)
          : changedNotes(doc, shown)
        : undefined,
    [doc, before, preview, other, shown],
  )
  const mayWrite = Boolean(doc) && doc === played && fits && !out && !other
  return { model, signs, out, fits, changed, mayWrite }
}
