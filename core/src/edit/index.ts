/** Writing by hand: commands as plain data, clips, rows of places, finding. */
export { applyEdit } from './applyEdit.ts'
export { type Choosing, chosenNotes } from './chosenNotes.ts'
export { type Clip, clipOf } from './clip.ts'
export {
  type EditCommand,
  type Edited,
  type EditRefusal,
  type ExpressionEdit,
  FORM_SIGNS,
  type FormSign,
  MEASURE_EDITS,
  type MeasureEdit,
  MELODY_EDITS,
  type MelodyEdit,
  type NoteManner,
  type RefusalReason,
  SONG_EDITS,
  type SongEdit,
  TAB_EDITS,
  type TabEdit,
} from './edited.ts'
export { type FigureChords, readFigureChords } from './figure/figureChords.ts'
export { FINDABLE, findOnPage, type Found } from './find/findOnPage.ts'
export { type HandRow, type HandRowFault, handRowEdits, readHandRow } from './handRow.ts'
export { exchanged, keptAsOssia } from './ossia.ts'
export {
  type PlacesRow,
  readPlacesRow,
  rowEdits,
  type RowFault,
  type RowPlace,
  type RowStep,
} from './placesRow.ts'
export { locksAround, measureLock, withSelection } from './selection.ts'
export { addPart, type AddedPart, type PartNames, type SectionedTune } from './parts/addPart.ts'
export { buildUp } from './parts/build.ts'
export { quantised, type TapGrid, type Tapped } from './tapped.ts'
export { tidyTab } from './tidyTab.ts'
export { writtenOut } from './writtenOut.ts'
