import { Button } from '@mantine/core'
import { IconPrinter } from '@tabler/icons-react'
import { useEffect, useState, type ReactNode } from 'react'
import { createPortal } from 'react-dom'
import { useTranslation } from 'react-i18next'
import { PageFoot } from './PageFoot.tsx'
import css from './Printable.module.css'

/** A part of a page that prints as a page of its own: a title, what it is for, and itself, in print colours. */
export function Printable({
  title,
  note,
  label,
  children,
}: {
  title: string
  note: string
  /** What the button says. */
  label: string
  children: ReactNode
}) {
  const { t } = useTranslation()
  const [printing, setPrinting] = useState(false)
  useEffect(() => {
    if (!printing) return
    const root = document.documentElement
    const end = () => setPrinting(false)
    root.dataset['prints'] = 'part'
    window.addEventListener('afterprint', end)
    // What measures itself has drawn itself two frames later.
    let frame = requestAnimationFrame(() => {
      frame = requestAnimationFrame(() => window.print())
    })
    return () => {
      cancelAnimationFrame(frame)
      window.removeEventListener('afterprint', end)
      delete root.dataset['prints']
    }
  }, [printing])
  return (
    <>
      {children}
      <Button
        className="no-print"
        mt="sm"
        size="compact-sm"
        variant="default"
        leftSection={<IconPrinter size={15} />}
        onClick={() => setPrinting(true)}
      >
        {label}
      </Button>
      {printing
        ? createPortal(
            <article
              className={`on-paper ${css['printed-part']}`}
              data-mantine-color-scheme="light"
              data-testid="printed-part"
              aria-hidden
            >
              <PageFoot title={title} />
              <h1>{title}</h1>
              <p>{note}</p>
              {children}
              <footer>{t('sheet.fileNote')}</footer>
            </article>,
            document.body,
          )
        : null}
    </>
  )
}
