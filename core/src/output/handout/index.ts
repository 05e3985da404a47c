/** Tab, boxes and necks as SVG; pieces, pages and the lesson file. */
export { neckSvg, type ShownFinger } from '../engrave/neckPaper.ts'
export { type DrawStaff, type StaffPlace } from '../engrave/paperStaff.ts'
export { escaped } from '../markup.ts'
export { type PaperLayers, type PaperOptions, USUAL_PAPER_LAYERS } from '../engrave/tabPage.ts'
export { type TabSystem, tabSystems } from '../engrave/tabPaper.ts'
export { bookPieces, type BookTune, type BookWords, withPageNumbers } from './book.ts'
export { composing, handoutPieces, type PaperPiece } from './blockPieces.ts'
export {
  type Block,
  BLOCK_KINDS,
  type BlockKind,
  type HandoutDoc,
  LONGEST_NOTES,
  type Paper,
  PAPER_PX,
  PAPERS,
  usualHandout,
} from './handout.ts'
export { type LessonData, lessonFileHtml, noteKey } from './lessonFile.ts'
export { pageHtml, paginated, roomOn } from './pages.ts'
export { DRAWING_CSS, paperCss, printCss } from './paperCss.ts'
export { setupFacts } from './setupFacts.ts'
