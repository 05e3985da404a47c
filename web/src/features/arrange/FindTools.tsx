import { ActionIcon, Popover, Text, TextInput, UnstyledButton } from '@mantine/core'
import { IconSearch } from '@tabler/icons-react'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import { FINDABLE, findOnPage } from '@velvet-porch/core/edit'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useActions } from '../../state/actions.ts'
import type { SheetPosition } from '../../score/sheet/sheetModel.ts'
import css from './FindTools.module.css'

/** Most places that are listed; the rest is counted. */
const LISTED = 12

/** Finds places on the sheet: a technique, a fret, a chord, a section, a word. */
export function FindTools({
  tune,
  doc,
  numbers,
  onPosition,
}: {
  tune: TuneDoc
  doc: ArrangementDoc | null
  numbers: readonly number[]
  onPosition: (position: SheetPosition) => void
}) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  const [query, setQuery] = useState('')
  const [at, setAt] = useState(-1)
  const found = useMemo(
    () => (open ? findOnPage(tune, doc ?? undefined, query) : []),
    [open, tune, doc, query],
  )
  useActions(
    useMemo(() => [{ id: 'find', label: t('find.title'), keys: '/', run: () => setOpen(true) }], [t]),
  )
  const go = (index: number) => {
    const hit = found[index]
    if (!hit) return
    setAt(index)
    onPosition({ measure: hit.measure, tick: hit.tick })
  }
  return (
    <Popover
      transitionProps={{ duration: 0 }}
      opened={open}
      onChange={setOpen}
      position="bottom-end"
      withinPortal
      trapFocus
      returnFocus
      shadow="md"
    >
      <Popover.Target>
        <ActionIcon
          variant="subtle"
          color="plum"
          aria-label={t('find.title')}
          title={`${t('find.title')} (/)`}
          onClick={() => setOpen(!open)}
        >
          <IconSearch size={18} />
        </ActionIcon>
      </Popover.Target>
      <Popover.Dropdown>
        <form
          onSubmit={(e) => {
            e.preventDefault()
            go(found.length > 0 ? (at + 1) % found.length : -1)
          }}
        >
          <TextInput
            w={280}
            size="sm"
            data-autofocus
            label={t('find.title')}
            placeholder={t('find.hint')}
            value={query}
            onChange={(e) => {
              setQuery(e.currentTarget.value)
              setAt(-1)
            }}
          />
        </form>
        {query.trim() === '' ? (
          <div className={css['find-words']} role="group" aria-label={t('find.words')}>
            {FINDABLE.map((word) => (
              <UnstyledButton key={word} onClick={() => setQuery(word)}>
                {word}
              </UnstyledButton>
            ))}
          </div>
        ) : (
          <Text size="sm" mt={6} role="status">
            {found.length === 0 ? t('find.none') : t('find.count', { count: found.length })}
          </Text>
        )}
        <ol className="history" aria-label={t('find.places')}>
          {found.slice(0, LISTED).map((f, i) => (
            <li key={`${f.measure}.${f.tick}`}>
              <UnstyledButton aria-current={i === at ? 'step' : undefined} onClick={() => go(i)}>
                <span>{t('sheet.measure', { number: numbers[f.measure]! })}</span>
                <em>{f.what}</em>
              </UnstyledButton>
            </li>
          ))}
        </ol>
        {found.length > LISTED ? (
          <Text size="xs">{t('arrange.audit.more', { count: found.length - LISTED })}</Text>
        ) : null}
      </Popover.Dropdown>
    </Popover>
  )
}
