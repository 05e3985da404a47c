import { useEffect, useRef } from 'react'
import { octaveAbove } from '@velvet-porch/core/output'
import { drawStaff, musicFont } from './drawStaff.ts'
import { STAFF_SCALE } from './metrics.ts'
import { queueDrawing } from './drawQueue.ts'
import type { SystemPage } from './pages.ts'
import css from './StaffLayer.module.css'

/** The staff of one system. Drawn outside React, in turn with others. */
export function StaffLayer({ page }: { page: SystemPage }) {
  const target = useRef<HTMLDivElement>(null)
  const { model, rows } = page
  const { width } = page.system
  const arranged = model.setup !== undefined
  const octaveClef = model.setup !== undefined && octaveAbove(model.setup, model.layer?.notes ?? []) > 0
  useEffect(() => {
    let cancel = () => {}
    let left = false
    void musicFont().then(() => {
      if (left) return
      cancel = queueDrawing(() => {
        if (!target.current) return
        drawStaff(target.current, page.system, page.model.tune, page.model.staff, {
          width,
          height: rows.height,
          top: rows.staffTop,
          scale: STAFF_SCALE,
          arranged,
          octaveClef,
        })
        target.current.dataset.drawn = 'true'
      })
    })
    return () => {
      left = true
      cancel()
    }
  }, [page, width, rows, arranged, octaveClef])
  return <div ref={target} className={css['staff-ink']} aria-hidden />
}
