import type { DrawStaff } from '@velvet-porch/core/output/handout'
import { drawStaff, musicFont } from './drawStaff.ts'

/** Loads the music font and answers with a way to draw staves for paper. */
export async function staffOnPaper(): Promise<DrawStaff> {
  await musicFont()
  return (tune, staff, { system, ...place }) => {
    const target = document.createElement('div')
    drawStaff(target, system, tune, staff, { ...place, arranged: true })
    return target.innerHTML
  }
}
