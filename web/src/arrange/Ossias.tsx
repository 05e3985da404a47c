import { ActionIcon, Button, Group, Select, Tooltip } from '@mantine/core'
import { IconTrash } from '@tabler/icons-react'
import type { ArrangementDoc, Id, TuneDoc } from '@velvet-porch/core'
import { useTranslation } from 'react-i18next'
import type { SheetModel } from '../sheet/sheetModel.ts'
import { change } from '../store/documents.ts'

const ANY = 'any'

/** Other versions of measures that were kept: shown on the sheet, given to a pass, dropped. */
export function Ossias({
  tune,
  doc,
  model,
  shown,
  onShow,
}: {
  tune: TuneDoc
  doc: ArrangementDoc
  model: SheetModel
  shown: Id | undefined
  onShow: (id: Id | undefined) => void
}) {
  const { t } = useTranslation()
  const passes = Math.max(1, ...model.unfolded.order.map((o) => o.pass))
  const variants = doc.variants.filter((v) =>
    v.measures.every((id) => tune.measures.some((m) => m.id === id)),
  )
  if (variants.length === 0) return null
  const edit = (id: Id, label: string, recipe: (draft: { when: { pass?: number } }) => void) =>
    void change('arrangement', doc.id, label, (draft) => {
      const own = draft.variants.find((v) => v.id === id)
      if (own) recipe(own as { when: { pass?: number } })
    })
  return (
    <details className="reasons" data-testid="ossias" open>
      <summary>{t('easier.ossias')}</summary>
      <ul className="ossias">
        {variants.map((v) => {
          const [from, to] = [v.measures[0]!, v.measures.at(-1)!].map(
            (id) => model.numbers[model.timeline.indexOf.get(id)!]!,
          )
          const what = t(from === to ? 'easier.ossiaOne' : 'easier.ossia', { from, to, what: v.name })
          return (
            <li key={v.id}>
              <div>{what}</div>
              <Group gap={4} wrap="nowrap">
                <Button
                  size="compact-xs"
                  variant={shown === v.id ? 'filled' : 'default'}
                  aria-pressed={shown === v.id}
                  onClick={() => onShow(shown === v.id ? undefined : v.id)}
                >
                  {t(shown === v.id ? 'easier.hide' : 'easier.show')}
                </Button>
                {passes > 1 ? (
                  <Select
                    size="xs"
                    w={112}
                    aria-label={t('easier.passes')}
                    allowDeselect={false}
                    value={v.when.pass === undefined ? ANY : String(v.when.pass)}
                    data={[
                      { value: ANY, label: t('easier.passAny') },
                      ...Array.from({ length: passes }, (_, i) => ({
                        value: String(i + 1),
                        label: t('easier.passN', { pass: i + 1 }),
                      })),
                    ]}
                    onChange={(p) =>
                      p !== null &&
                      edit(v.id, t('easier.command.pass', { pass: p === ANY ? '–' : p }), (own) => {
                        if (p === ANY) delete own.when.pass
                        else own.when.pass = Number(p)
                      })
                    }
                  />
                ) : null}
                <Tooltip label={t('easier.drop')}>
                  <ActionIcon
                    size="sm"
                    variant="subtle"
                    color="plum"
                    aria-label={t('easier.drop')}
                    onClick={() => {
                      if (shown === v.id) onShow(undefined)
                      void change('arrangement', doc.id, t('easier.command.drop'), (draft) => {
                        const at = draft.variants.findIndex((x) => x.id === v.id)
                        if (at >= 0) draft.variants.splice(at, 1)
                      })
                    }}
                  >
                    <IconTrash size={15} />
                  </ActionIcon>
                </Tooltip>
              </Group>
            </li>
          )
        })}
      </ul>
    </details>
  )
}
