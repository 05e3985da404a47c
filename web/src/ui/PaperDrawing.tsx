import { present } from '@velvet-porch/core/invariant'
import { DRAWING_CSS } from '@velvet-porch/core/output/handout'
import { useLayoutEffect, useRef } from 'react'
import css from './PaperDrawing.module.css'

/** A drawing of the core as it looks on paper, in a shadow of its own: neither look gets into the other. */
export function PaperDrawing({ svg }: { svg: string }) {
  const host = useRef<HTMLDivElement>(null)
  useLayoutEffect(() => {
    const root = present(host.current).shadowRoot ?? present(host.current).attachShadow({ mode: 'open' })
    // Every text in it was escaped when it was drawn.
    root.innerHTML = `<style>${DRAWING_CSS}</style>${svg}`
  }, [svg])
  return <div className={css['paper-drawing']} ref={host} />
}
