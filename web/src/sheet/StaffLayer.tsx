import { useEffect, useRef } from 'react'
import { isPlayed, writtenAbove, type SystemLayout } from '@velvet-porch/core/layout'
import { drawStaff, musicFont } from './drawStaff.ts'
import { queueDrawing } from './drawQueue.ts'
import type { Rows } from './metrics.ts'
import type { SheetModel } from './sheetModel.ts'

/** The staff of one system. Drawn outside React, in turn with others. */
export function StaffLayer({
  model,
  system,
  width,
  rows,
}: {
  model: SheetModel
  system: SystemLayout
  width: number
  rows: Rows
}) {
  const target = useRef<HTMLDivElement>(null)
  const { tune, staff } = model
  const arranged = model.setup !== undefined
  const octaveClef =
    model.setup !== undefined && isPlayed(model.layer?.notes ?? []) && writtenAbove(model.setup) > 0
  useEffect(() => {
    let cancel = () => {}
    let left = false
    void musicFont().then(() => {
      if (left) return
      cancel = queueDrawing(() => {
        if (!target.current) return
        drawStaff(target.current, system, tune, staff, { width, rows, arranged, octaveClef })
        target.current.dataset.drawn = 'true'
      })
    })
    return () => {
      left = true
      cancel()
    }
  }, [tune, staff, system, width, rows, arranged, octaveClef])
  return <div ref={target} className="staff-ink" aria-hidden />
}
